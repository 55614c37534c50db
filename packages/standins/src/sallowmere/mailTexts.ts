type Office = 'council' | 'engineers' | 'residents' | 'press';

export const MAIL_SUBJECTS: readonly string[] = [
  'Late Lamp Plan: draft for comment',
  'Lamps in Ropewalk Lane',
  'Agenda for the hearing on 24 March',
  'Costs of amber fittings',
  'Counts from the marsh, please read before the vote',
  'The dark corner by the ferry steps',
  'Question about dimming after 22:30',
  'Minutes of Tuesday, and one correction',
  'Glare on the slipway',
  'Invitation: night walk along the sea wall',
  'Re-siting post 14 (again)',
  'Who decides about the quay?',
  'Power failure of 9 May: first findings',
  'Letters we received this week',
  'Timetable for the first forty lamps',
];

export const MAIL_OPENINGS: Readonly<Record<Office, readonly string[]>> = {
  council: [
    'Please find the draft below. We would like your comments by Friday, also if they are unwelcome ones.',
    'The committee asked for figures on the lanes. What do we have from the trial nights?',
    'Could somebody confirm that the ferry steps are not part of the dimming? I was asked three times today.',
    'The hall is booked for the 24th. Expect more people than chairs.',
    'Before this goes to the vote, I want us to agree on one number for the savings, not four.',
  ],
  engineers: [
    'The amber fittings arrived. Two of forty flicker; they go back.',
    'Dimming to 40 % after 22:30 works on the test row. Below that the drivers hum, and people will write to you about it.',
    'Attached to this paragraph there should have been a table; here it is in words: the lanes are cheap, the wall is not.',
    'Post 14 stands in the wrong place on every one of our three plans.',
    'First findings on 9 May: a blown fuse in the substation, and nothing to do with the lamps.',
  ],
  residents: [
    'I come home from the night shift at half past one. Please do not switch off the corner by the bakery.',
    'We counted moths for eleven years and nobody asked. Now you ask, so here it is: amber helps.',
    'My mother fell by the ferry steps last winter, with the old lamps on. Light is not the only thing that matters there.',
    'The glare on the slipway is so bad that the pilots close one eye. Could the plan mention that?',
    'Thank you for the night walk. I had not seen the Milky Way from my own street before.',
  ],
  press: [
    'For Thursday’s paper: what will it cost, and what will it save? One sentence each would be enough.',
    'Three readers say the vote was moved. Was it?',
    'We would like to print the letter of the recorders next to that of the traders. Any objections?',
  ],
};

export const MAIL_ANSWERS: Readonly<Record<Office, readonly string[]>> = {
  council: [
    'Thank you, this goes into the minutes.',
    'I cannot promise that, but I will raise it on Tuesday.',
    'The number in the draft is the old one. The new one follows tomorrow.',
    'Agreed, with one change: the quay stays as it is until the hearing.',
  ],
  engineers: [
    'Possible, if nobody moves the posts again.',
    'Measured last night: 3 lux at the steps, 11 under the lamp. Numbers are attached to the plan.',
    'No. It would need new cables, and then we are in another budget.',
  ],
  residents: [
    'That is good to hear. I will tell the others.',
    'With respect, you have not walked there at two in the morning.',
    'Then let us meet there on Friday and look at it together.',
    'I disagree, and I am not alone with that.',
  ],
  press: [
    'May I quote this with your name?',
    'Thank you. It runs on Thursday.',
    'And who was at that meeting?',
  ],
};
