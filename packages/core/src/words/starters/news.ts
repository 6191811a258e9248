import { email, onPaper, spokenWords, type Starter } from './starter';

/** Starters that tell, greet, invite to help, and ask whether one may go on writing. */
export const NEWS: readonly Starter[] = [
  {
    key: 'welcome',
    name: 'Welcome',
    note: 'The day after somebody joins a list. Says who writes, how often, and how to leave.',
    purpose: 'news',
    words: {
      email: email(
        'Good that you are here, {First name, or "friend"}',
        'Who we are, how often we write, and how to stop it',
        `Dear {Greeting, or "friend"},

you asked to hear from {Organization: name}, and this is the first letter.

What to expect: about ___ letters a year, on ___. You can choose what you get, or stop all of it, by the link at the end of each.

Where to begin:

- what we do, in two minutes: ___
- what happens next: ___

I read what you answer. What made you join?

{Sender: name}
{Organization: name}`,
      ),
      text: spokenWords(
        '{First name, or "Hello"}, good that you are here. About ___ texts a year. {Sender: name}',
      ),
    },
  },
  {
    key: 'event-follow-up',
    name: 'After an event',
    note: 'Within two days, to those who came. What was said stays with them for that long.',
    purpose: 'news',
    words: {
      email: email(
        'Thank you for coming on ___',
        'Pictures, what was decided, and what comes next',
        `Dear {Greeting, or "friend"},

___ of us came on ___. Thank you for being one of them.

What stays:

- ___
- ___

Pictures are at ___.

What comes next is ___, on ___. If you want to lend a hand there, answer this mail.

{Sender: name}`,
      ),
      text: spokenWords(
        '{First name, or "Hello"}, thank you for coming. Pictures: ___ Next: ___. {Sender: name}',
      ),
      call: spokenWords(
        `Hello {First name, or "there"}, this is {Sender: name} from {Organization: name}. You were there on ___: how did you find it?

(Listen, and write down one thing they liked and one they missed.)

The next is on ___. May I put you down?`,
      ),
    },
  },
  {
    key: 'volunteer-call',
    name: 'Hands wanted',
    note: 'For one day and one piece of work. Says how long, what to bring, and whom to ask.',
    purpose: 'volunteering',
    words: {
      email: email(
        '___ pairs of hands on ___',
        'How long, what to bring, and whom to ask',
        `Dear {Greeting, or "friend"},

on ___ from ___ to ___ we ___, and need ___ people.

- Where: ___
- What to bring: ___
- What you need not know: anything. Somebody shows you.

Can you come? Answer this mail with yes, and I will put you down. If you can't, tell me when it would suit you better.

{Sender: name}
{Organization: name}`,
      ),
      text: spokenWords(
        '{First name, or "Hello"}, we need hands on ___ from ___ at ___. Can you come? Answer with yes or no. {Sender: name}',
      ),
      call: spokenWords(
        `Hello {First name, or "there"}, this is {Sender: name} from {Organization: name}. On ___ we ___, and I am looking for ___ people.

It takes ___ hours, at ___. Could you come?

Yes: say where to be and when, and ask for a number to reach them on the day.
No: ask whether another day would suit, and thank them.`,
      ),
    },
  },
  {
    key: 'permission-lapses',
    name: 'May we go on writing?',
    note: 'A month before a permission ends that was not given in so many words. One question, one button.',
    purpose: 'news',
    words: {
      email: email(
        'May we go on writing to you, {First name, or "friend"}?',
        'A yes takes one press. Without it, this was the last letter',
        `Dear {Greeting, or "friend"},

you have heard from us because of something you did with us some time ago. That is not a yes for ever, and so I ask.

If you want to go on hearing what becomes of ___, open the page behind the link at the end of this letter and tick what you would like to get.

If you do nothing, we stop by ourselves. You need not tell us why.

Thank you for the time with us.

{Sender: name}`,
      ),
      text: spokenWords(
        '{First name, or "Hello"}, may we go on texting you about ___? Answer YES. Without an answer we stop. {Sender: name}',
      ),
      post: onPaper(
        `Dear {Greeting, or "friend"},

you hear from us because of something you did with us some time ago. May we go on writing?

A line to {Sender: email} is enough. Without it, we stop by ourselves.

{Sender: name}
{Organization: name}`,
      ),
    },
  },
  {
    key: 'update',
    name: 'How it is going',
    note: 'Three or four times a year. What was promised, what was done, what went wrong.',
    purpose: 'news',
    words: {
      email: email(
        'What became of ___',
        'What was promised, what is done, and what went wrong',
        `Dear {Greeting, or "friend"},

in ___ we said that we would ___. This is where it stands.

Done: ___

Not done, and why: ___

Next: ___

If you would like to see it, ___.

{Sender: name}
{Organization: name}`,
      ),
      post: onPaper(
        `Dear {Greeting, or "friend"},

in ___ we said that we would ___. This is where it stands: ___.

What comes next is ___. You will hear of it.

{Sender: name}
{Organization: name}`,
      ),
    },
  },
];
