/** What kind of field it is, in the words people read in hovers and outlines. */
import type { Field } from './definition';

const FORMATS = {
  email: 'e-mail address',
  url: 'web address',
  phone: 'telephone number as of E.164',
  iban: 'IBAN',
  imo: 'IMO number',
  container: 'container number as of ISO 6346',
} as const;

export function kindInWords(field: Field): string {
  switch (field.kind) {
    case 'text':
      return field.format === undefined ? 'text' : FORMATS[field.format];
    case 'number':
      return field.unit === undefined ? 'number' : `number in ${field.unit}`;
    case 'money':
      return field.currency === undefined ? 'money' : `money in ${field.currency}`;
    case 'date':
      return 'date, YYYY-MM-DD';
    case 'time':
      return 'time, HH:MM';
    case 'datetime':
      return 'date and time, as 2031-05-02T09:00:00Z';
    case 'yes_no':
      return 'yes or no; null until answered';
    case 'choice':
      return 'choice';
    case 'choices':
      return 'choices: a list of keys';
    case 'file':
      return 'files: a list of name, size and type';
    case 'rows':
      return `rows of ${field.fields.map((cell) => cell.name).join(', ')}`;
    case 'reference':
      return `key of a row of ${field.table}`;
  }
}
