import type { Stored, StoredJob, StoredRun } from '../src/core/records/views';
import type { Job } from '../src/core/records/job';
import { expect, test } from './app';
import { newRun, Technician } from './technician';

test('readings that cannot be are refused at the field, and nothing typed is lost', async ({ app, page }) => {
  const { run } = await newRun(app, 'BAD-1');
  await page.goto(`${app.url}/runs/${run.id}`);
  const technician = await Technician.at(app, page, run.id);
  await technician.until('bypass.1.input');
  const field = page.locator('#reading');
  const refused = async (text: string, message: RegExp) => {
    await field.fill(text);
    await page.waitForTimeout(850);
    await page.keyboard.press('Enter');
    await expect(page.getByText(message)).toBeVisible();
    await expect(field).toHaveValue(text);
  };
  const { count } = await technician.next();
  await refused('', /Fluid in: type the value first/);
  await refused('lots', /“lots” is not a number/);
  await refused('200', /beyond the full scale of G-12 \(160\.0 bar\)/);
  await refused('18 inHg', /inHg does not fit\. This field takes a fluid pressure/);
  await refused('5 furlongs', /the unit “furlongs” is not known here/);
  await refused('-3 bar', /below absolute zero/);
  await refused('1,200', /can be read two ways/);
  await expect(page.getByRole('button', { name: '1.2 bar', exact: true })).toBeVisible();
  expect((await technician.next()).count).toBe(count);
  await page.getByRole('button', { name: '1.2 bar', exact: true }).click();
  await expect(field).toHaveValue('1.2 bar');
  await technician.until('rest.supply');
  await refused('31 inHg', /no vacuum is deeper than that/);
});

test('a reading that no fault explains is kept after a second confirmation only', async ({ app, page }) => {
  const { run } = await newRun(app, 'BAD-2');
  await page.goto(`${app.url}/runs/${run.id}`);
  const technician = await Technician.at(app, page, run.id);
  await technician.until('ratio.1.output');
  const { count } = await technician.next();
  await page.keyboard.type('120');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/no known fault gives 120\.0 bar here/)).toBeVisible();
  expect((await technician.next()).count).toBe(count);
  // Enter twice by habit, or the foot-switch, keeps nothing: only its own key does.
  await page.keyboard.press('Enter');
  await page.waitForTimeout(850);
  await page.keyboard.press('Enter');
  await page.keyboard.press('F8');
  await page.waitForTimeout(850);
  expect((await technician.next()).count).toBe(count);
  await page.keyboard.press('F6');
  await expect(page.getByRole('list', { name: 'Tape' }).getByText(/confirmed/)).toBeVisible();
  expect((await technician.next()).count).toBe(count + 1);
});

test('two screens on one run: the second capture is told, not lost', async ({ app, page, context }) => {
  const { run } = await newRun(app, 'BAD-3');
  await page.goto(`${app.url}/runs/${run.id}`);
  const technician = await Technician.at(app, page, run.id);
  await technician.until('bypass.1.input');
  const other = await context.newPage();
  await other.goto(`${app.url}/runs/${run.id}`);
  await other.locator('#reading').fill('20.8');
  // The first screen records before the second one has heard of it.
  await other.route('**/api/v1/runs/*', (route) =>
    route.request().method() === 'GET' ? route.abort() : route.continue(),
  );
  await page.locator('#reading').fill('20.2');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Read the output.')).toBeVisible();
  await other.bringToFront();
  await other.locator('#reading').press('Enter');
  await expect(
    other.getByText('It recorded 20.2 bar; you had 20.8 bar. Yours is not recorded.'),
  ).toBeVisible();
  await other.getByRole('button', { name: 'Record mine too, as a repeat' }).click();
  const tape = other.getByRole('list', { name: 'Tape' });
  await expect(tape.getByText(/In 20\.2/)).toBeVisible();
  await expect(tape.getByText(/In 20\.8/)).toBeVisible();
  const { events } = await app.get<StoredRun>(`/runs/${run.id}`);
  expect(events.filter((e) => e.type === 'captured' && e.item === 'bypass.1.input')).toHaveLength(2);
});

test('a value typed while another screen moves the run on never lands on the next reading', async ({
  app,
  page,
  context,
}) => {
  const { run } = await newRun(app, 'BAD-4');
  await page.goto(`${app.url}/runs/${run.id}`);
  const technician = await Technician.at(app, page, run.id);
  await technician.until('bypass.1.input');
  const other = await context.newPage();
  await other.goto(`${app.url}/runs/${run.id}`);
  await other.locator('#reading').fill('20.8');
  await page.bringToFront();
  await page.locator('#reading').fill('20.2');
  await page.keyboard.press('Enter');
  await other.bringToFront();
  await expect(other.getByText('Read the output.')).toBeVisible();
  await expect(other.locator('#reading')).toHaveValue('');
  await expect(other.getByText(/The run moved on while “20\.8” stood typed/)).toBeVisible();
  await other.getByRole('button', { name: 'Go back to it' }).click();
  await expect(other.locator('#reading')).toHaveValue('20.8');
  await other.waitForTimeout(850);
  await other.locator('#reading').press('Enter');
  await expect(other.getByRole('list', { name: 'Tape' }).getByText(/In 20\.8/)).toBeVisible();
});

test('markup, emoji, right-to-left text and 10 000 characters are stored and shown as text', async ({
  app,
  page,
}) => {
  const [first] = (await app.get<{ jobs: StoredJob[] }>('/jobs')).jobs;
  const complaint = `<img src=x onerror="document.title='owned'"> 🚐💨 \u202Bبدال قاس\u202C ${'long '.repeat(2000)}end`;
  const { profileId } = first!.body;
  const job = await app.post<Stored<Job>>('/jobs', {
    tag: '<b>T</b>',
    kind: 'remote-vacuum',
    profileId,
    from: '',
    complaint,
    fluid: 'unknown',
    promisedOn: null,
  });
  expect(job.body.complaint).toBe(complaint);
  await page.goto(`${app.url}/jobs/${job.id}`);
  await expect(page.getByRole('heading', { name: /<b>T<\/b>/ })).toBeVisible();
  await expect(page.getByText('<img src=x onerror=')).toBeVisible();
  await expect(page.getByText(/long end”/)).toBeVisible();
  await expect(page).toHaveTitle(/<b>T<\/b>/);
  expect(await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBe(0);
  await page.goto(`${app.url}/jobs`);
  await expect(page.getByRole('link', { name: '<b>T</b>' })).toBeVisible();
});

test('intake says which field is wrong and keeps what was typed', async ({ app, page }) => {
  await page.goto(`${app.url}/jobs/new`);
  // Letters are no date, and half a date is none yet.
  await page.getByRole('group', { name: 'Promised for' }).getByRole('spinbutton').first().click();
  await page.keyboard.type('x11/30');
  await page.getByLabel('Complaint').fill('It pulls');
  await page.getByRole('button', { name: /Take it in/ }).click();
  await expect(page.getByText('Job tag: give the unit a tag.')).toBeVisible();
  await expect(page.getByText('Promised: give day, month and year, or leave it empty.')).toBeVisible();
  await expect(page.getByLabel('Complaint')).toHaveValue('It pulls');
  const promised = page.getByRole('group', { name: 'Promised for' });
  await expect(promised).toHaveText(/11\/30\/YYYY/);
  await promised.getByRole('spinbutton', { name: 'Year' }).click();
  await page.keyboard.type('2026');
  await page.getByLabel('Job tag').fill('DATE-1');
  await page.getByRole('button', { name: /Take it in/ }).click();
  await expect(page.getByText('promised for 2026-11-30')).toBeVisible();
});

test('a page of another site can neither read, nor write, nor show this one in a frame', async ({
  app,
  page: own,
}) => {
  const http = await import('node:http');
  const before = (await app.get<unknown[]>('/technicians')).length;
  const foreign = http.createServer((_request, response) => {
    response.setHeader('content-type', 'text/html');
    response.end(`<img src="${app.url}/api/v1/backup"><iframe src="${app.url}/jobs"></iframe>
      <form method="post" enctype="text/plain" action="${app.url}/api/v1/technicians">
        <input name='{"name":"X","pin":"471100","x":"' value='"}'></form>
      <a href="${app.url}/jobs">Jobs</a>`);
  });
  await new Promise<void>((ready) => foreign.listen(0, 'localhost', ready));
  try {
    const { port } = foreign.address() as { port: number };
    // A page as it is: one of ours waits until it is awake.
    const page = await own.context().newPage();
    const answers = new Map<string, number>();
    page.on('response', (response) => answers.set(new URL(response.url()).pathname, response.status()));
    await page.goto(`http://localhost:${port}/`);
    // What is refused to be shown may be told to the page as nothing at all.
    const REFUSED = 0;
    page.on('requestfailed', (request) => answers.set(new URL(request.url()).pathname, REFUSED));
    await page.reload();
    for (const where of ['/api/v1/backup', '/jobs'])
      await expect.poll(() => [REFUSED, 403].includes(answers.get(where) ?? 200)).toBe(true);
    await expect(page.frameLocator('iframe').getByRole('heading', { name: 'Jobs' })).toBeHidden();
    await page.evaluate(() => document.querySelector('form')!.submit());
    await expect.poll(() => [REFUSED, 403].includes(answers.get('/api/v1/technicians') ?? 200)).toBe(true);
    expect((await app.get<unknown[]>('/technicians')).length).toBe(before);
    // A link to a page may be followed.
    await page.goto(`http://localhost:${port}/`);
    await page.getByRole('link', { name: 'Jobs' }).click();
    await expect(page.getByRole('heading', { name: 'Jobs' })).toBeVisible();
    const headers = (await page.request.get(`${app.url}/jobs`)).headers();
    expect(headers).toMatchObject({
      'x-frame-options': 'DENY',
      'x-content-type-options': 'nosniff',
      'referrer-policy': 'same-origin',
    });
    expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
  } finally {
    foreign.close();
  }
});

test('a script that was written into a page does not run; each answer has a nonce of its own', async ({
  app,
  page: own,
}) => {
  const policies = await Promise.all(
    ['/jobs', '/jobs'].map(
      async (where) => (await own.request.get(`${app.url}${where}`)).headers()['content-security-policy']!,
    ),
  );
  const nonces = policies.map((policy) => /script-src 'self' 'nonce-([^']{20,})';/.exec(policy)?.[1]);
  expect(new Set(nonces).size).toBe(2);
  const page = await own.context().newPage();
  await page.goto(`${app.url}/jobs`);
  await expect(page.getByRole('heading', { name: 'Jobs' })).toBeVisible();
  const refused = page.waitForEvent('console', (message) => /content security policy/i.test(message.text()));
  // As markup that slipped through would: by an element, by an attribute, by a text that is evaluated.
  await page.evaluate(() => {
    const script = document.createElement('script');
    script.textContent = 'window.ran = "element"';
    document.body.append(script);
    document.body.insertAdjacentHTML(
      'beforeend',
      '<img src="/nothing.png" onerror="window.ran = \'attribute\'">',
    );
    setTimeout('window.ran = "text"');
  });
  await refused;
  await page.waitForTimeout(500);
  expect(await page.evaluate(() => (window as { ran?: string }).ran)).toBeUndefined();
});

test('foreign Host and Origin are refused', async ({ app }) => {
  const http = await import('node:http');
  const ask = (headers: Record<string, string>, method = 'GET') =>
    new Promise<number>((resolve, reject) => {
      const request = http.request(
        { host: '127.0.0.1', port: app.port, path: '/api/v1/jobs', method, headers },
        (response) => {
          response.resume();
          resolve(response.statusCode ?? 0);
        },
      );
      request.on('error', reject);
      request.end(method === 'POST' ? '{}' : undefined);
    });
  const host = `127.0.0.1:${app.port}`;
  expect(await ask({ host })).toBe(200);
  expect(await ask({ host: 'bench.example' })).toBe(403);
  expect(await ask({ host, origin: 'http://evil.example' }, 'POST')).toBe(403);
  expect(await ask({ host, origin: 'null' }, 'POST')).toBe(403);
  const picture = { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'no-cors', 'sec-fetch-dest': 'image' };
  expect(await ask({ host, ...picture })).toBe(403);
  expect(await ask({ host, 'sec-fetch-site': 'same-origin' })).toBe(200);
  expect(await ask({ host, origin: `http://${host}` }, 'POST')).toBe(422);
});
