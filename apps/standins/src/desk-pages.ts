import { DESK_FAULTS, type DeskFault } from './desk-faults';
import type { DeskPerson } from './desk-people';
import { htmlText, standinPage } from './page';

const select = (name: string, options: readonly string[], chosen: string): string =>
  `<select name="${name}" aria-label="${htmlText(name)}">${options
    .map((one) => `<option${one === chosen ? ' selected' : ''}>${htmlText(one)}</option>`)
    .join('')}</select>`;

const field = (name: string, value: string): string =>
  `<input name="${name}" aria-label="${htmlText(name)}" value="${htmlText(value)}">`;

function line(one: DeskPerson): string {
  const fields = `${field('first', one.first)}${field('last', one.last)}${field('email', one.email)}`;
  return `<tr><td>${htmlText(one.id)}${one.paid_up ? ' · paid up' : ''}</td><td><form class="row" method="post" action="/people">
<input type="hidden" name="id" value="${htmlText(one.id)}">${fields}${select('news', ['yes', 'no', ''], one.news)}
<button name="act" value="save">Save</button><button name="act" value="delete">Delete</button></form></td></tr>`;
}

/** The donor desk by hand: its members to be changed, and how it is to fail. */
export function deskPage(people: readonly DeskPerson[], fault: DeskFault, token: string): string {
  const here = people.filter(({ gone }) => !gone);
  return standinPage(
    'Donor desk',
    `${here.length} members · token ${token}`,
    `<form class="row sheet" method="post" action="/fault"><label>What is wrong here: ${select('fault', DESK_FAULTS, fault)}</label><button>Set</button></form>
<form class="row sheet" method="post" action="/people">${field('first', '')}${field('last', '')}${field('email', '')}${select('news', ['yes', 'no', ''], 'yes')}
<button name="act" value="add">Add a member</button></form><table>${here.slice(0, 100).map(line).join('')}</table>`,
  );
}
