/** A postal address in its parts. */
export interface NewPostal {
  street: string;
  city: string;
  region: string;
  postcode: string;
  /** ISO 3166-1; empty where it is not said. */
  country: string;
}

/** An address as somebody gives it: email, number, landline, or a postal one in parts. */
export type NewAddress =
  | { kind: 'email'; text: string }
  | { kind: 'mobile'; text: string; line?: 'mobile' | 'landline' }
  | { kind: 'post'; post: NewPostal };
