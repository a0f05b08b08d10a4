/**
 * Start over: empties the form, and says so where something is lost.
 * @forms with start_over
 */

on.click(buttons.start_over, () => {
  const { changed } = form;
  form.clear();
  if (changed) form.message("Everything that was entered is gone. The form begins again.");
});
