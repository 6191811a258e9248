import { email, forGivers, onPaper, SIGNATURE, spokenWords, type Starter } from './starter';

/** Starters that thank. */
export const THANK_YOUS: readonly Starter[] = [
  {
    key: 'thanks-first',
    name: 'Thank you for a first gift',
    note: 'Within two days of the first gift. It asks for nothing.',
    purpose: 'service',
    words: {
      email: email(
        'Thank you, {First name, or "and welcome"}',
        'Your gift has arrived, and this is what it does',
        `Dear {Greeting, or "friend"},

your gift of {Last gift: amount, or "the other day"} arrived on {Last gift: date, or "its day"}. It was your first, and I noticed.

It goes into ___. In about ___ you will hear from me what became of it.

If you have a question, or want to see it for yourself, answer this mail. It reaches me.

{Sender: name}
{Organization: name}`,
      ),
      text: spokenWords(
        '{First name, or "Hello"}, your first gift to us has arrived: thank you. {Sender: name}',
      ),
      post: onPaper(
        `Dear {Greeting, or "friend"},

your gift of {Last gift: amount, or "the other day"} has arrived. It was your first to us, and so I write by hand, or nearly.

It goes into ___. You will hear what became of it.

Thank you.

{Sender: name}
{Organization: name}`,
      ),
      call: spokenWords(
        `Hello {First name, or "there"}, this is {Sender: name} from {Organization: name}. I only call to thank you: your gift of {Last gift: amount, or "the other day"} has arrived.

May I ask how you heard of us? (Write it down.)

That was all. Have a good day.

(Ask for nothing in this call, also if they offer.)`,
      ),
    },
  },
  {
    key: 'thanks-again',
    name: 'Thank you once more',
    note: 'For the second gift and each after it, so that no two thank-yous are the same.',
    purpose: 'service',
    words: {
      email: email(
        'Again, {First name, or "thank you"}',
        'You came back, and that says more than the amount',
        `Dear {Greeting, or "friend"},

{Last gift: amount, or "your gift"} on {Last gift: date, or "that day"}: thank you, once more.`,
        forGivers(
          3,
          24,
          'It is not the second time either. People who come back like this are why we can plan. Since your last gift ___.',
          'That somebody comes back tells us that the first gift was well used. Since then ___.',
        ),
        'What comes next is ___.',
        SIGNATURE,
      ),
      text: spokenWords(
        '{First name, or "Hello"}, your gift has arrived, and not for the first time. Thank you. {Sender: name}',
      ),
      call: spokenWords(
        `Hello {First name, or "there"}, this is {Sender: name} from {Organization: name}. You helped us again, and I wanted to thank you with my own voice.

Since your last gift ___.

Is there anything you would like to know? (Write it down.)`,
      ),
    },
  },
  {
    key: 'thanks-large',
    name: 'Thank you for a large gift',
    note: 'Call first, within a day; then the letter. The mail is for when nobody picks up.',
    purpose: 'service',
    words: {
      email: email(
        'Your gift, {First name, or "and thank you"}',
        'I tried to reach you to thank you myself',
        `Dear {Greeting, or "friend"},

on {Last gift: date, or "that day"} {Last gift: amount, or "your gift"} arrived from you. I would have liked to say it to you: thank you. It decides that ___ is done this year, and not some day.

May I show you? On ___ or ___ I am there, and would take the time. Or tell me when I can reach you; my number is {Sender: mobile, or "below"}.

{Sender: name}
{Organization: name}`,
      ),
      post: onPaper(
        `Dear {Greeting, or "friend"},

with {Last gift: amount, or "your gift"} you decided something: ___ is done this year.

I will write to you when it begins, and once more when it stands. If you want to be there, you are invited; a word to {Sender: mobile, or "us"} is enough.

On behalf of everybody whom it reaches: thank you.

{Sender: name}
{Organization: name}`,
      ),
      call: spokenWords(
        `Hello {First name, or "there"}, this is {Sender: name} from {Organization: name}. Do you have two minutes?

Your gift of {Last gift: amount, or "the other day"} has arrived. I wanted to thank you before anybody sends you a receipt. It means that ___.

May I ask what moved you? (Listen. Write it down in their words.)

Would you like to see it? (Days: ___)`,
      ),
    },
  },
];
