import en from './en.json';

/** A place's name as a reader of the language knows it: "Canada"; of a region "United States, FL". */
export function placeWords(key: string, language = 'en'): string {
  if (key === '*') return en['place.elsewhere'];
  if (key === 'EU') return en['place.EU'];
  const [country = '', region] = key.split('-');
  const name = new Intl.DisplayNames([language], { type: 'region' }).of(country) ?? country;
  return region ? `${name}, ${region}` : name;
}
