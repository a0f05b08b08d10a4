/**
 * Published check digits and formats, for `format` in a form's definition and for scripts as `checks`. Each takes the
 * text as people write it (blanks and, where the standard allows them, hyphens between groups) and says whether it is
 * sound; none says whether the thing exists.
 */
import { isEmail } from './formats';

/** Letters as two-digit numbers, A = 10 to Z = 35 (ISO/IEC 7064, alphanumeric systems). */
function asDigits(text: string): string {
  return text.replace(/[A-Z]/g, (letter) => String(letter.charCodeAt(0) - 55));
}

/** A long decimal number modulo a small one. */
function modulo(digits: string, by: number): number {
  let rest = 0;
  for (const digit of digits) rest = (rest * 10 + Number(digit)) % by;
  return rest;
}

/**
 * Countries by the length of their IBANs: the IBAN registry that ISO 13616 refers to. Held against ibantools for each
 * country it has of the registry; Burundi, Djibouti, the Falkland Islands and Honduras, which joined later, are from memory.
 */
const COUNTRIES_BY_LENGTH: Readonly<Record<number, string>> = {
  15: 'NO',
  16: 'BE',
  18: 'AX DK FI FK FO GL NL SD',
  19: 'MK SI',
  20: 'AT BA EE KZ LT LU MN XK',
  21: 'CH HR LI LV',
  22: 'BG BH CR DE GB GE IE ME RS VA',
  23: 'AE GI IL IQ OM SO TL',
  24: 'AD CZ ES MD PK RO SA SE SK TN VG',
  25: 'LY PT ST',
  26: 'IS TR',
  27: 'BI DJ FR GF GP GR IT MC MF MQ MR NC PF PM RE SM TF WF YT',
  28: 'AL AZ BY CY DO GT HN HU LB NI PL SV',
  29: 'BR EG PS QA UA',
  30: 'JO KW MU YE',
  31: 'MT SC',
  32: 'LC',
  33: 'RU',
};

const IBAN_LENGTHS: ReadonlyMap<string, number> = new Map(
  Object.entries(COUNTRIES_BY_LENGTH).flatMap(([length, countries]) =>
    countries.split(' ').map((country) => [country, Number(length)] as const),
  ),
);

/** An International Bank Account Number: ISO 13616, check digits by MOD 97-10 of ISO/IEC 7064. */
function iban(text: string): boolean {
  const plain = text.replace(/ /g, '').toUpperCase();
  // Check digits run from 02 to 98; 00, 01 and 99 would leave the same remainder as another pair.
  if (!/^[A-Z]{2}(?:0[2-9]|[1-8]\d|9[0-8])[A-Z0-9]{8,30}$/.test(plain)) return false;
  const length = IBAN_LENGTHS.get(plain.slice(0, 2));
  if (length !== undefined && plain.length !== length) return false;
  return modulo(asDigits(plain.slice(4) + plain.slice(0, 4)), 97) === 1;
}

/** A number whose last digit is the check digit of ISO/IEC 7812-1, annex B (Luhn). */
function luhn(text: string): boolean {
  const digits = text.replace(/[ -]/g, '');
  if (!/^\d{2,}$/.test(digits)) return false;
  let sum = 0;
  for (let i = 0; i < digits.length; i++) {
    const digit = Number(digits[digits.length - 1 - i]);
    sum += i % 2 === 0 ? digit : digit > 4 ? digit * 2 - 9 : digit * 2;
  }
  return sum % 10 === 0;
}

/** The value of a character of a container code: 10 for A, counting on without the multiples of 11 (ISO 6346). */
function containerValue(character: string): number {
  if (character >= '0' && character <= '9') return Number(character);
  const place = character.charCodeAt(0) - 65;
  return 10 + place + Math.floor((place + 9) / 10);
}

/** A freight container's identification: three letters of its owner, U, J or Z, six digits, a check digit (ISO 6346). */
function container(text: string): boolean {
  const plain = text.replace(/[ -]/g, '').toUpperCase();
  if (!/^[A-Z]{3}[UJZ]\d{7}$/.test(plain)) return false;
  let sum = 0;
  for (let i = 0; i < 10; i++) sum += containerValue(plain[i]!) * 2 ** i;
  return (sum % 11) % 10 === Number(plain[10]);
}

/** A ship's IMO number: seven digits, the last the check digit of the first six weighted 7 to 2 (IMO resolution A.1117(30)). */
function imo(text: string): boolean {
  const match = /^(?:IMO ?)?(\d{7})$/i.exec(text.trim());
  if (match === null) return false;
  const digits = match[1]!;
  let sum = 0;
  for (let i = 0; i < 6; i++) sum += Number(digits[i]) * (7 - i);
  return sum % 10 === Number(digits[6]);
}

/** An international telephone number: +, a country code that begins with 1 to 9, at most 15 digits in all (ITU-T E.164). */
function phone(text: string): boolean {
  return /^\+[1-9]\d{1,14}$/.test(text.replace(/[ -]/g, ''));
}

export const checks = {
  iban,
  luhn,
  container,
  imo,
  phone,
  email: isEmail,
} as const;

/** Whether a text is spelled as a mask says: `9` a digit, `A` a capital letter, `*` either, the rest itself. */
export function fitsMask(text: string, mask: string): boolean {
  return text.length === mask.length && [...mask].every((place, i) => fits(text[i]!, place));
}

function fits(character: string, place: string): boolean {
  if (place === '9') return /\d/.test(character);
  if (place === 'A') return /[A-Z]/.test(character);
  if (place === '*') return /[A-Z0-9]/.test(character);
  return character === place;
}

/**
 * Spells a text as a mask says: characters that fit fill its places in turn, letters as capitals, what the mask
 * brings itself is put in, the rest is left out. Ends where the characters do.
 */
export function throughMask(text: string, mask: string): string {
  const given = [...text.toUpperCase()].filter((character) => /[A-Z0-9]/.test(character));
  let spelled = '';
  let next = 0;
  for (const place of mask) {
    if (next >= given.length) break;
    if (place !== '9' && place !== 'A' && place !== '*') {
      spelled += place;
      // What the mask brings may have been typed as well.
      if (given[next] === place) next++;
      continue;
    }
    while (next < given.length && !fits(given[next]!, place)) next++;
    if (next < given.length) spelled += given[next++]!;
  }
  return spelled;
}
