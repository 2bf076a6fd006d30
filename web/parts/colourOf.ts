/** A colour of the theme as it stands, by the name of its variable; charts cannot read variables themselves. */
export const colourOf = (variable: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(variable).trim();
