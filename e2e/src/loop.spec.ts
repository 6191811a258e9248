import { writeFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { agree, arrived, signIn, textsAtAnyHour, takenBackFor } from './steps';

const FILE = [
  'E-mail addr,Given name,Surname,Cell,Shirt',
  'ines.loop@example.org,Ines,Castellan,(212) 555-0191,M',
  '"opens.ola.loop@example.org",Ola,"Berg, the younger",,L',
  'follows.fay.loop@example.org,Fay,Osei,212 555 0192,',
  'refuse.gil.loop@example.org,Gil,Marsh,,',
  'hugo.loop@example,Hugo,Vale,,',
  ',,,,',
  'ines.loop@example.org,Jun,Castellan,,S',
  'kit.loop@example.org,Kit,Tran,212.555.0193,XL',
  'lia.loop@example.org,LIA,TRAN,,',
  'mo.loop@example.org,"Mo ""Boots""",Seo,,',
].join('\r\n');

const mailroom = process.env.GW_MAILROOM ?? '';
const handsets = process.env.GW_HANDSETS ?? '';

test('a file comes in, a group is chosen, an email and a text go out, answers come back, the ledger tells it all', async ({
  page,
}, info) => {
  await signIn(page);
  await page.goto('/');

  await test.step('gather', async () => {
    const path = info.outputPath('river-walk.csv');
    writeFileSync(path, FILE);
    await page.getByRole('link', { name: 'Gather' }).click();
    await page.getByRole('button', { name: 'Bring in a file' }).click();
    await page.getByLabel('Choose a file').setInputFiles(path);
    await expect(page.getByText('10 rows under the header')).toBeVisible();
    await expect(page.getByLabel('Encoding')).toHaveValue('utf-8');
    for (const column of [
      'E-mail addr: Email',
      'Given name: First name',
      'Surname: Last name',
      'Cell: Phone',
    ])
      await expect(page.getByRole('button', { name: `Column ${column}` })).toBeVisible();
    await expect(page.getByRole('complementary', { name: 'Margin' })).toContainText('has no ending');
    await page.getByRole('button', { name: 'Next: where they go' }).click();
    await page.getByLabel('A new tag').fill('river walk');
    await page.getByRole('button', { name: 'Add' }).click();
    await page.getByLabel('A new list').fill('River walkers');
    await page.getByRole('button', { name: 'Make', exact: true }).click();
    await page.getByRole('button', { name: 'Next: permission' }).click();
    await expect(page.getByRole('button', { name: 'Next: matches' })).toBeDisabled();
    await agree(page, 'email', ['appeals', 'news']);
    await agree(page, 'text', ['appeals']);
    await page.getByRole('button', { name: 'Next: matches' }).click();
    await page.getByRole('button', { name: 'Next: check the batch' }).click();
    await page.getByRole('button', { name: 'Bring in 8 people' }).click();
    await expect(page.getByText('What became of the rows')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Take the batch back out' })).toBeVisible();
  });

  await test.step('sort', async () => {
    await page.goto('/sort/segments/new');
    await page.getByLabel('Name of the segment').fill('River walkers to thank');
    await page.getByRole('button', { name: /Add a line/ }).click();
    await page.getByRole('button', { name: 'who have a tag' }).click();
    await page.getByRole('button', { name: /^Tag:/ }).click();
    await page.getByRole('button', { name: 'river walk', exact: true }).click();
    await expect(page.getByText('8 people, always up to date')).toBeVisible();
    await page.getByRole('button', { name: 'Save the segment' }).click();
    await expect(page).toHaveURL(/segments\/\d+$/);
  });

  await test.step('write an email', async () => {
    await page.goto('/write');
    await page.getByRole('button', { name: 'Write a message' }).click();
    await page.getByLabel('Name', { exact: false }).first().fill('River walk appeal');
    await page.getByRole('button', { name: 'Begin to write' }).click();
    await page.getByLabel('Subject').first().fill('{Frist name}, the river is rising');
    await expect(page.getByText("can't be filled")).toBeVisible();
    await page.getByRole('button', { name: 'Write {First name}' }).click();
    const letter = page.getByRole('textbox', { name: 'The letter' });
    await letter.click();
    await letter.pressSequentially('Dear {first name, or "neighbour"}, ');
    await page.getByRole('button', { name: 'Put in…' }).click();
    await page.getByRole('menuitem', { name: 'A button…' }).click();
    await page.getByLabel('What stands on it').fill('Walk with us');
    await page.getByLabel('Where it leads').fill('https://lanternferry.test/walk');
    await page.getByRole('button', { name: 'Put it in' }).click();
    await expect(page.getByText('The words are in order')).toBeVisible();
    await expect(page.getByText('Everything is saved')).toBeVisible();
    await expect(
      page.frameLocator('iframe[title="The letter as it will look"]').getByText('Walk with us'),
    ).toBeVisible();
    await page.getByRole('button', { name: 'Next: who gets it' }).click();
  });

  await test.step('last look and send', async () => {
    await page.getByRole('button', { name: 'choose a group' }).click();
    await page.getByRole('option', { name: 'River walkers to thank' }).click();
    await expect(page.getByRole('button', { name: '7 will get it. See them' })).toBeVisible();
    await page.getByRole('button', { name: /1 held back: Same address as someone else/ }).click();
    await expect(page.getByRole('dialog')).toContainText('Jun Castellan');
    await page.getByRole('button', { name: 'Close' }).click();
    await page.getByRole('button', { name: 'Send me a test' }).click();
    await expect(page.getByText('Sent to rosa@lanternferry.test')).toBeVisible();
    await takenBackFor(page, 20);
    await page.reload();
    await page.getByRole('button', { name: 'Send now to 7' }).click();
    await expect(page.getByText(/^Leaves in \d+ seconds$/)).toBeVisible();
    await page.getByRole('button', { name: 'Take it back' }).click();
    await expect(page.getByRole('button', { name: 'Send now to 7' })).toBeEnabled();
    await takenBackFor(page, 2);
    await page.reload();
    await page.getByRole('button', { name: 'Send now to 7' }).click();
    await expect(page.getByRole('button', { name: 'Sent: 6. See them' })).toBeVisible();
    await expect(page.getByRole('button', { name: 'Bounced: 1. See them' })).toBeVisible();
    await expect(page.getByRole('button', { name: 'Opened: 2. See them' })).toBeVisible();
    await expect(page.getByRole('button', { name: 'Clicked: 1. See them' })).toBeVisible();
  });

  await test.step('leave by the footer of the mail', async () => {
    const [mail] = await arrived(
      `${mailroom}/api/mails?to=kit.loop@example.org`,
      (rows) => rows.length === 1,
    );
    expect(mail!.subject).toBe('Kit, the river is rising');
    expect(mail!.text).toContain('Dear Kit,');
    expect(mail!.text).toContain('14 Slip Lane, Port Alder');
    await page.goto(/http:\/\/\S+\/leave\/[a-z2-7]+/.exec(mail!.text!)![0]);
    await page.getByRole('button', { name: 'Leave appeals' }).click();
    await expect(page.getByRole('heading', { name: 'You have left appeals' })).toBeVisible();
  });

  await test.step('a text goes out and is stopped', async () => {
    await textsAtAnyHour(page);
    await page.goto('/write');
    await page.getByRole('button', { name: 'Write a message' }).click();
    await page.getByLabel('Name', { exact: false }).first().fill('River walk text');
    await page.getByLabel('It goes by').selectOption('text');
    await page.getByRole('button', { name: 'Begin to write' }).click();
    await page
      .getByRole('textbox', { name: 'The text' })
      .fill('Hi {First name}, boots on Saturday. Reply STOP to leave.');
    await expect(page.getByText('Everything is saved')).toBeVisible();
    await page.getByRole('button', { name: 'Next: who gets it' }).click();
    await page.getByRole('button', { name: 'choose a group' }).click();
    await page.getByRole('option', { name: 'River walkers', exact: true }).click();
    await page.getByRole('button', { name: 'Send me a test' }).click();
    await expect(page.getByText('Sent to +12065550110')).toBeVisible();
    await page.getByRole('button', { name: 'Send now to 3' }).click();
    await expect(page.getByRole('button', { name: 'Delivered: 3. See them' })).toBeVisible();
    const phone = `${handsets}/api/texts?number=${encodeURIComponent('+12125550191')}`;
    await arrived(phone, (rows) =>
      rows.some(
        (row) => row.body === 'Lantern Ferry Trust: Hi Ines, boots on Saturday. Reply STOP to leave.',
      ),
    );
    await fetch(`${handsets}/api/phones/${encodeURIComponent('+12125550191')}/answer`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ text: 'stop' }),
    });
    const texts = await arrived(phone, (rows) => rows.length >= 3);
    expect(texts.at(-1)!.body).toContain('no more texts');
    await expect(page.getByRole('button', { name: 'Opted out: 1. See them' })).toBeVisible();
  });

  await test.step('the ledger tells it all', async () => {
    await page.keyboard.press('Control+k');
    await page.getByPlaceholder('A name, an address, a list, a message').fill('kit.loop@');
    await page.getByRole('option', { name: /Kit Tran/ }).click();
    const ledger = page.getByRole('region', { name: 'Permission ledger' });
    await expect(ledger).toContainText('Email, appeals: by one click');
    await expect(ledger).toContainText('river-walk.csv, row 8');
    await expect(ledger).toContainText('vouched for by Rosa Oduya');
    await expect(page.getByRole('region', { name: 'Between you' })).toContainText(
      'Left by “River walk appeal”',
    );
    await page.goto('/sort?search=ines.loop@');
    await page.getByRole('row', { name: /Ines Castellan/ }).click();
    await expect(page.getByRole('region', { name: 'Permission ledger' })).toContainText(
      'Text, everything: by a keyword texted to us',
    );
    await expect(page.getByRole('region', { name: 'Between you' })).toContainText('Wrote “stop”');
  });

  await test.step('and of the batch, whoever was written to would stay', async () => {
    await page.goto('/gather');
    await page.getByRole('link', { name: 'river walk' }).click();
    await page.getByRole('button', { name: 'Take the batch back out' }).click();
    await expect(page.getByRole('alertdialog')).toContainText(/\d stays?, because something happened/);
    await page.getByRole('button', { name: 'Leave it as it is' }).click();
  });
});
