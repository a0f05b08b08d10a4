/** Whether a permit is needed: an inspection needs none, and the form says so instead of asking on. */

keep("no permit for an inspection", () => {
  if (fields.works_kind.value === "inspection") form.replaceWith("An inspection needs no permit. Tell the harbour office by radio when you begin.");
});

keep("a vessel alongside has to be told", () => {
  fields.alongside.hint = fields.alongside.value === true ? "Its master has to agree before the works begin." : null;
});
