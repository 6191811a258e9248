import { email, forGivers, GIFT_BUTTONS, onPaper, SIGNATURE, spokenWords, type Starter } from './starter';

/** Starters that ask. */
export const APPEALS: readonly Starter[] = [
  {
    key: 'winter-appeal',
    name: 'Winter appeal',
    note: 'Once a year, to everybody who agreed to appeals. One thing to be paid for, and its price.',
    purpose: 'appeals',
    words: {
      email: email(
        'Before the year ends, {First name, or "one question"}',
        'What ___ costs, and what is still missing',
        `Dear {Greeting, or "friend"},

this is the one letter a year in which we ask.`,
        forGivers(
          1,
          18,
          'You gave {Last gift: amount, or "before"} on {Last gift: date, or "another day"}. What it made possible: ___.',
          'You may not have given to us yet. What people gave last year made this possible: ___.',
        ),
        `This winter we want to ___. It costs ___, and so far we have ___. Work begins on ___, whether or not everything is there by then; what is missing decides how far we get.

What a gift does:

- ___ pays for ___
- ___ pays for ___

If you can, give before ___:`,
        GIFT_BUTTONS,
        `If this is not the year for it, no answer is needed, and you stay as welcome as you are.

Thank you for reading this far.`,
        SIGNATURE,
      ),
      text: spokenWords(
        '{First name, or "Hello"}, we still need ___ for ___ by ___. Would you help? ___ {Sender: name}',
      ),
      post: onPaper(
        `Dear {Greeting, or "friend"},

once a year we write a letter in which we ask. This is it.

This winter we want to ___. It costs ___, and so far we have ___.

You will find a slip for the bank with this letter. Every amount helps, and every one is thanked for by a person who knows what it was for.

If you would rather not be asked by post, a line to {Sender: email} is enough.

With good wishes for the winter,

{Sender: name}
{Organization: name}`,
      ),
      call: spokenWords(
        `Hello {First name, or "there"}, this is {Sender: name} from {Organization: name}. Is this a good moment?

You wrote to us or gave before, so I wanted to ask you myself. This winter we want to ___, and ___ is still missing.

Would you be willing to help with that?

Yes: thank them, say where to give, and ask whether a reminder by text would be welcome.
Not now: thank them all the same, and ask whether they would rather hear from us another way.`,
      ),
    },
  },
  {
    key: 'lapsed-return',
    name: 'Come back: who gave before',
    note: 'To people who gave, but not in the last two years. No reproach: they owe us nothing.',
    purpose: 'appeals',
    words: {
      email: email(
        '{First name, or "You"}, something you helped begin',
        'What became of your gift, and what comes next',
        `Dear {Greeting, or "friend"},

on {Last gift: date, or "a day some time ago"} you gave {Last gift: amount, or "something"}. You have not heard often enough what became of it, so here it is: ___.

It goes on. The next piece is ___, and it needs ___.

Would you be part of it again? The same as last time would be a great help, and so would half.`,
        GIFT_BUTTONS,
        `If your life has changed and this is no longer for you, write me one line. I would still like to know how you are.`,
        SIGNATURE,
      ),
      post: onPaper(
        `Dear {Greeting, or "friend"},

on {Last gift: date, or "a day some time ago"} you helped us with {Last gift: amount, or "a gift"}. Since then ___.

The next piece is ___. I would be glad if you took part again, and just as glad to hear from you if you do not.

{Sender: name}
{Organization: name}`,
      ),
      call: spokenWords(
        `Hello {First name, or "there"}, this is {Sender: name} from {Organization: name}.

I am not calling about a bill. You helped us on {Last gift: date, or "an earlier day"}, and I wanted to tell you what came of it: ___.

How did you come to us at the time? (Listen, and write it down.)

Only if it fits: the next piece is ___. Would you like to hear more of it, or to help again?`,
      ),
    },
  },
  {
    key: 'monthly-step-up',
    name: 'A little more each month',
    note: 'To people who give every month, a year after the last time they were asked.',
    purpose: 'appeals',
    words: {
      email: email(
        'Your month, {First name, or "friend"}',
        'What twelve of your gifts did, and one question',
        `Dear {Greeting, or "friend"},

every month, without being asked, {Last gift: amount, or "your gift"} arrives from you. In the past twelve months that made it possible to ___.

Prices have risen: ___ cost ___ a year ago, and costs ___ today. Would you raise your monthly gift by ___?

One line in answer to this mail is enough; I see to the rest. If it stays as it is, that is good too: it is people like you who let us plan.

{Sender: name}`,
      ),
      call: spokenWords(
        `Hello {First name, or "there"}, this is {Sender: name} from {Organization: name}. I call to say thank you first: twelve gifts of {Last gift: amount, or "yours"} let us ___.

May I ask you something? ___ costs more than it did. Could you imagine giving ___ more each month?

Yes: read back the new amount and the day from which it counts.
No: thank them, and say that it stays as it is.`,
      ),
    },
  },
  {
    key: 'membership-renewal',
    name: 'Membership: another year',
    note: 'Six weeks before a membership ends, and once more a week before.',
    purpose: 'appeals',
    words: {
      email: email(
        'Another year together, {First name, or "friend"}?',
        'Your membership ends soon; it takes two minutes to renew',
        `Dear {Greeting, or "friend"},

your membership of {Organization: name} ends on ___.

This year our members made ___ happen. In the coming year we want to ___, and we would like you to be there.

You renew at ___. The amount is ___ as before.

If you would rather not, do nothing: the membership ends by itself, and we thank you for the time you were with us.

{Sender: name}
{Organization: name}`,
      ),
      text: spokenWords(
        '{First name, or "Hello"}, your membership ends on ___. Renew it at ___. {Sender: name}',
      ),
      post: onPaper(
        `Dear {Greeting, or "friend"},

your membership of {Organization: name} ends on ___. It can be renewed with the slip below or at ___; the amount is ___ as before.

Thank you for the past year. What it made possible: ___.

{Sender: name}
{Organization: name}`,
      ),
    },
  },
];
