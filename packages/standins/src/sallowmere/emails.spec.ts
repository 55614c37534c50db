import { emailsAsMbox, emailText } from '../files';
import { makeEmails } from './emails';

describe('the correspondence', () => {
  const { emails, truth } = makeEmails();

  it('is as large as the story says: 1,500 emails among some 90 addresses, a few people with two', () => {
    expect(truth.emails).toBe(1500);
    expect(truth.addresses).toBeGreaterThanOrEqual(85);
    expect(truth.addresses).toBeLessThanOrEqual(95);
    expect(truth.addresses).toBeGreaterThan(truth.people);
  });

  it('is the same for the same seed, and another for another', () => {
    expect(makeEmails(50, 7).emails).toEqual(makeEmails(50, 7).emails);
    expect(makeEmails(50, 7).emails).not.toEqual(makeEmails(50, 8).emails);
  });

  it('answers only what was written before, and nobody writes to themselves', () => {
    for (const { answers, time, from, to, cc } of emails) {
      if (answers) expect(answers.time).toBeLessThanOrEqual(time);
      expect([...to, ...cc]).not.toContain(from.address);
      expect(new Set([...to, ...cc]).size).toBe(to.length + cc.length);
    }
  });

  it('uses addresses that end in .example only (RFC 2606)', () => {
    for (const { from, to, cc } of emails)
      for (const address of [from.address, ...to, ...cc]) expect(address).toMatch(/\.example$/);
  });

  it('quotes what it answers, and names the whole thread', () => {
    const reply = emails.find(({ answers }) => answers?.answers)!;
    const text = emailText(reply);
    expect(text).toContain(`In-Reply-To: <${reply.answers!.id}>`);
    expect(text).toContain(`<${reply.answers!.answers!.id}>\n`);
    expect(text).toMatch(/^> /m);
  });

  it('stands in a mailbox with one "From " line each', () => {
    const box = emailsAsMbox(emails.slice(0, 100));
    expect(box.match(/^From \S+@\S+ \w{3} \w{3} \d{2} \d{2}:\d{2}:\d{2} 2026$/gm)).toHaveLength(100);
  });
});
