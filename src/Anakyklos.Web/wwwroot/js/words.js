// What the scripts say, in the language of the page that is shown: the page carries the sentences, by what they are in English.
const sentences = () => JSON.parse(document.getElementById('words')?.textContent || '{}');

/** A sentence in the language of the page, its holes {0}, {1} filled; in English where the page has none for it. */
export const say = (english, ...holes) => (sentences()[english] ?? english).replace(/\{(\d)\}/g, (_, n) => holes[n]);

/** The number that a text of a person begins with, its decimals behind a point or a comma; NaN where it begins with none. */
export const numberIn = (text) => parseFloat(text.replace(',', '.'));

/** A number as the language of the page writes it. */
export const written = (number) =>
  number.toLocaleString(document.documentElement.lang, { useGrouping: false, maximumFractionDigits: 3 });
