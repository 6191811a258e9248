/** A text on a phone: from us, or from them. */
export interface Text {
  id: string;
  number: string;
  from: 'us' | 'them';
  body: string;
  at: Date;
  key: string | null;
}
