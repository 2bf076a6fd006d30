/** What a contract says when a value does not fit, in sentences that say what to do; the same in form and server. */
const MESSAGES: Record<string, string> = {
  'any.required': '{{#label}} is missing.',
  'any.only': '{{#label}} is not one of the choices.',
  'string.base': '{{#label}} must be text.',
  'string.empty': '{{#label}} is empty. Type something.',
  'string.max': '{{#label}} is too long: at most {{#limit}} characters.',
  'string.guid': '{{#label}} is not a valid id.',
  'number.base': '{{#label}} must be a number.',
  'number.positive': '{{#label}} must be more than zero.',
  'number.min': '{{#label}} must be at least {{#limit}}.',
  'number.max': '{{#label}} must be at most {{#limit}}.',
  'number.greater': '{{#label}} must be more than {{#limit}}.',
  'number.integer': '{{#label}} must be a whole number.',
  'number.infinity': '{{#label}} must be a number.',
  'number.unsafe': '{{#label}} is too large a number.',
  'object.unknown': '{{#label}} is not known here.',
  'object.base': '{{#label}} must be an object.',
  'array.max': '{{#label}} has too many rows: at most {{#limit}}.',
  'array.min': '{{#label}} has too few rows.',
};

export const OPTIONS = { convert: true, messages: MESSAGES, errors: { wrap: { label: false } } } as const;

export function sentence(text: string): string {
  const upper = text.charAt(0).toUpperCase() + text.slice(1);
  return upper.endsWith('.') ? upper : `${upper}.`;
}
