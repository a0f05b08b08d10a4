/** What shared modules are checked beside: a form without parts, since they have none of their own. */
import type { Form } from '../form/definition';

export const NO_FORM: Form = { name: '', title: 'Shared modules', pages: [] };
