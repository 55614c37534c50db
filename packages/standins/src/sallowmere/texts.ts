import type { GroupName } from './groups';

/** Openings of posts by group. {place}, {hour}, {count}, {name} and {org} are filled in. */
export const POSTS: Readonly<Record<GroupName, readonly string[]>> = {
  moths: [
    '{count} hawk-moths at the one amber lamp by {place}. Under the white ones: four, and two of those were dead on the wall.',
    'Pipistrelles came out at {hour} again, straight along the dark side of {place}. They avoid the bright lamps, every single time.',
    'Trap results from {place}: {count} moths of 31 species. That is double what we had under the old lamps.',
    'If anyone from {org} reads this: our counts are open, all eleven years of them. Please use them.',
    'Sat by {place} until {hour} with the detector. Nothing for an hour, lamps dimmed, then {count} passes in ten minutes.',
    'Moths do not vote, so I will go to the hearing for them 🦋',
    'People ask why amber. Short answer: most night insects hardly see it. Long answer at {place}, bring a coat.',
    'Found a privet hawk-moth on the door of {org}. She did not have an appointment.',
    'New recorder sheet is up, pls write down lamp colour as well as weather. We need it for the vote.',
    'First noctule of the year over {place}, {hour}. I may have shouted.',
    '{name} says dimming changes nothing for wildlife. {count} nights of counting say otherwise.',
    'wet night, no moths, one very friendly cat at {place}',
  ],
  stars: [
    'Seeing was superb over {place} tonight, you could split doubles with a toy telescope. Imagine it with the lamps down.',
    'Sky quality meter says 20.{count} at {place}. With lamps off on the trial night it was almost a whole magnitude better.',
    'Milky Way visible from {place} at {hour}. First time in years from inside the town!! ✨',
    'Bringing the big Dobson to {place} on Friday, everyone welcome, children first.',
    'The plan is not "darkness". It is lamps that point down and do not blind you. Big difference.',
    '{name} asked at the meeting what use stars are. I have no answer that fits in a post.',
    'Counted {count} stars in Orion from the sea wall. The record from 1987 is 34, kept by {org}.',
    'clouds. again. the sky has read the minutes of {org} and is against it',
    'Lyrids over the estuary: {count} in two hours, one left a trail you could have hung washing on.',
    'Please turn phone torches down at {place}, we were dark-adapted for an hour and then: you.',
    'A lamp that lights the underside of a gull is a badly aimed lamp.',
  ],
  night: [
    'Finished at {hour}, walked home past {place}. Two lamps out already and nobody has even voted yet.',
    'I am not against moths. I am against not seeing the step at {place} at {hour}.',
    'Question for {org}: have you ever walked from the depot to {place} after a twelve hour shift? In the rain?',
    'Three of us walk together now. That is the plan, apparently: bring your own streetlight.',
    'amber is ok where people drive. lanes are different. someone write that down',
    'The bakery starts at {hour}. {count} of us come through the lanes every single night. Ask us.',
    'Spoke to the ward sister, she counted {count} staff who changed their way home since the trial.',
    'Fell on the kerb by {place} last night, knee is fine, tights are not. Sending the bill to {org} 😤',
    'Not scared, just tired of planning my way home like a sailor.',
    'last bus gone, walking. it is so quiet you can hear the boats',
    'Nobody asked the cleaners. Nobody ever asks the cleaners.',
    'If you dim it, put a sensor on it. Walk up, light comes on. Is that so hard, {name}?',
  ],
  pilots: [
    'From the water the white lamps on {place} hide the leading lights. Amber is easier on the eyes, ask any pilot.',
    'Fog at {hour}, could not tell the wall lamps from the buoy at {place}. Dim them, please, yesterday.',
    'Ferry ran {count} minutes late, glare on the slip again. Crew had to hold a hand up to see the line.',
    'Notice to everyone with an opinion: come aboard at {hour} and look at the town from the channel.',
    'Night berth went well, lamps at {place} were down for the trial. First time I did not squint.',
    'Chart table, cold tea, tide at {hour}. Good night for arguing about lamps.',
    '{org} measured the glare from the quay. We measure it from the bridge. Guess whose number is higher.',
    'keep two bright ones at the slip for boarding, dim the rest. done. next question',
    'Crew meeting: {count} for the plan, three against, one asleep.',
    'Old chart from {name} shows the town with eleven lights in all. Nobody ran aground that year.',
  ],
  traders: [
    '{count} customers after nine on Friday. In the trial week: hardly half. I can count, {org}.',
    'Open until {hour} as always, lamps or no lamps. Soup is leek and potato.',
    'Dim lamps look lovely on a postcard. People eat where it looks open.',
    'Season starts in {count} days and we are talking about switching things off?',
    'We put our own lanterns up at {place}. Warm, low, pretty. Takings were fine actually.',
    '{name} from the chandlery says footfall is down. Footfall was down before anyone touched a lamp.',
    'Pies until midnight for whoever is still walking about in the dark #PieFriday',
    'Traders’ meeting at {place}, {hour}. Bring figures, not feelings. (Bring biscuits.)',
    'empty tables again. could be lamps, could be the wind, could be my new menu',
    'A tourist asked when the sunset is switched off. I said October.',
    'Insurance wrote to ask about lighting after 22:30. That letter is worth reading out at {org}.',
  ],
  council: [
    'The draft of the plan is online: after 22:30 the lamps go to 30 per cent, crossings and the slip stay as they are.',
    'Measured tonight at {place}: {count} lux before, 4 lux after. The standard asks for 3 in lanes of this class.',
    'Reminder: the hearing is on 24 March in the town hall, {hour}. You may speak for three minutes.',
    'Amber means 1800 kelvin. The lamp maker has sent {count} samples; they hang at {place} for everybody to see.',
    'All {count} comments that came to {org} by post are being read. By people. With tea.',
    'Correction: the saving is per year, not per month. Thank you to all who noticed, in capitals.',
    'The sensors at {place} work. The gulls set them off. We are looking into the gulls.',
    'Minutes of the meeting with {org} are out, page {count} has the map of lamps.',
    'Dimming in steps over ten minutes, nobody will notice the moment. That is what {name} promised anyway.',
    'Vote is on 28 April. Whatever comes out, crossings stay lit.',
  ],
  press: [
    'Live from the town hall: {count} people, not enough chairs, the lamps on full.',
    'We spoke with {name} about walking home after the late shift. The whole talk is on our page.',
    'Reading room open until {hour} with all papers on the plan: drafts, maps, letters, moth lists.',
    'What does {org} say about the slip? We asked three times. Here is the answer.',
    'Lamps in numbers: {count} on the wall, 212 in the lanes, nine that nobody owns up to.',
    'Correction to our piece on {place}: the lamp there is not broken, it is protected.',
    'Both sides agree on one thing tonight: the biscuits at the hearing were poor.',
    'Letters to the desk this week: {count} for, about as many against, one about dogs.',
  ],
  ring: [
    'Ordinary people never asked for darkness. Keep our lights on.',
  ],
  passing: [
    'Nice evening at {place}, didn’t know lamps were such a topic here',
    'staying two nights, lovely town, very passionate about bulbs',
    'Can someone explain the lamp thing to me like I am five?',
    'I grew up at {place}. It was darker then and we were fine. Or were we',
  ],
  lone: [
    'Sunset on the sea wall 🌅',
    'Chips, gulls, one chip fewer.',
    'Walked to {place} and back. Good boots.',
    'Harbour looks like a painting today',
    'Is the ferry running on Sunday?',
    'Lamps or not, this is a fine place for a walk.',
    'posting this so I remember where the good bench is: {place}',
  ],
};

/** Answers, by mood; {topic} is what the answered message was about. */
export const REPLIES: readonly string[] = [
  'exactly this', 'that is not what the draft says, page four', 'Source? Asking kindly.', 'I was there and it was not like that at all',
  'Thank you, that is the first sensible thing on {topic} I read today', 'ok but what about {place}?', 'Agree about {topic}, disagree about the rest.',
  'You keep saying that. Have you been to {place} after {hour}?', 'haha yes', 'hm. fair point tbh', 'No. Sorry, but no.',
  'Would you say that at the hearing too?', 'Same here at {place}, {count} times since the trial', 'This needs to be in the minutes.',
  'I asked {org} about {topic}, still no answer', 'Could we talk about {topic} over a tea instead of here?', 'so much this 👏',
  'My neighbour says the opposite and she lives right under the lamp', 'Good thread, thank you', 'imo both can be true',
  'you are mixing up lux and lumen again', 'And who pays for that?', 'Count me in for Friday', 'I’d sign that.', 'Where is the map?',
  'That was {name}, not me, but fine', 'wait, since when?', 'Lovely picture by the way', 'It’s the slip that worries me, not {topic}',
  'Bring the numbers on the 24th please', 'lol no', 'as somebody who works at {hour}: thank you',
  'I’ve changed my mind on {topic}, a bit', 'can confirm', 'This. And the crossings.', 'Ask the bus drivers, they see all of it',
  'you said the same in March', 'Not convinced, but I will come and look', 'how many did you count?', 'Write that to the council desk, not to me',
];

export const REPLIES_ELSEWHERE: Readonly<Record<'fr' | 'es', readonly string[]>> = {
  fr: ['tout à fait d’accord', 'et les chauves-souris alors ?', 'Je rentre à pied chaque nuit, la ruelle est trop sombre', 'Merci pour les chiffres !', 'On verra bien au vote'],
  es: ['totalmente de acuerdo', 'y quién paga eso?', 'Yo vuelvo andando a casa, la calle está muy oscura', '¡Gracias por los datos!', 'Qué bonito se ve el cielo ahora'],
};

export const POSTS_ELSEWHERE: Readonly<Record<'fr' | 'es', readonly string[]>> = {
  fr: [
    'Belle nuit au port, on voit enfin les étoiles près de {place}.',
    'La lumière ambrée ne me gêne pas, le noir complet si. {count} marches et aucune lampe.',
    'Réunion à la mairie le 24 mars, qui vient ?',
    'Les papillons de nuit préfèrent l’ambre, {count} comptés hier soir.',
  ],
  es: [
    'Desde el ferry las lámparas blancas deslumbran muchísimo, sobre todo en {place}.',
    'Anoche conté {count} polillas junto a {place}. ¡Increíble!',
    'Trabajo de noche y necesito luz en los callejones, gracias.',
    '¿Alguien sabe a qué hora es la votación?',
  ],
};

/** The loud account repeats itself in capitals and answers nobody. */
export const LOUD_POSTS: readonly string[] = [
  'LIGHTS ON. ALL OF THEM. ALL NIGHT.', 'THEY WANT YOU IN THE DARK.', 'DAY {count} WITHOUT AN ANSWER FROM THE TOWN HALL.',
  'A LAMP THAT IS OFF IS NOT A LAMP.', 'WHO ORDERED THE AMBER? WHO??', 'SIGN THE LETTER. SHARE THE LETTER.', 'I SAID THIS IN FEBRUARY.',
  'TONIGHT AT {place}: {count} LAMPS BROKEN. COINCIDENCE?', 'WAKE UP SALLOWMERE.', 'NO ANSWER IS ALSO AN ANSWER.',
];

/** Sentences that the ring posts in step, each with its link. */
export const RING_TEXTS: readonly string[] = [
  'My mother is 82 and afraid to leave the house since the lamps went amber. Shame on them. {link}',
  'Independent study shows crime doubles when lamps are dimmed. Read before they delete it: {link}',
  'Ordinary people never asked for darkness. Keep our lights on. {link}',
  'They save pennies and we pay with our safety. {link}',
  'Ask yourself who profits from amber lamps. {link}',
  'The council has already decided. The hearing is theatre. {link}',
  'Moths are not more important than mothers. {link}',
  '9 out of 10 neighbours want full light. Why does nobody report this? {link}',
  'Shops are closing because of the Late Lamp Plan. Fact. {link}',
  'If the lamps go, we go. Share this. {link}',
  'The power failure was a test. Stay awake. {link}',
  'One question the Lighting Board will not answer: {link}',
];

export const LOUD_ASIDE: readonly string[] = [
  'and no, @wall_lamps_now, shouting is not an argument', '@wall_lamps_now will hate this', 'cc @wall_lamps_now', 'Tell that to @wall_lamps_now.',
  '@wall_lamps_now for once I agree with you', 'before @wall_lamps_now starts again', 'hello @wall_lamps_now 👋', '(not you, @wall_lamps_now)',
];

export const DRIVER_POSTS: readonly string[] = [
  'Last bus out of the depot, lamps off at the wall and @{other} was right: {count} moths on the one amber lamp.',
  'You two should meet before the hearing, @{one} and @{other}. Same wall, same hours.',
  '@{one} {count} at the stop by the slip tonight, two of them hawk-moths. The rest wanted the 14.',
  'I drive that road at one in the morning, @{one}. Amber is fine. Dark at the stop is not. @{other} has the counts.',
  'Lost glove, one bat, four passengers. @{one}, the bat is yours.',
  '@{other} waited with you at the stop last night, @{one}. Ask about the lamp sensor.',
];

export const TOPICS: readonly string[] = ['the slip', 'amber', 'the lanes', 'the sensors', 'the vote', 'the savings', 'the counts', 'glare', 'the hearing', 'opening hours', 'the crossings', 'the trial'];
export const PLACES: readonly string[] = ['the sea wall', 'Gannet Lane', 'the ferry slip', 'Tollhouse Steps', 'the north quay', 'Sandpiper Row', 'the bus depot', 'Cooper’s Stairs', 'the marsh gate', 'Lantern Court', 'the fish hall', 'Saltpan Bridge', 'the lower lanes', 'Mizzen Street'];
export const HOURS: readonly string[] = ['22:40', '23:15', 'half past one', '4 am', '19:00', 'ten past eleven', '05:30', '00:20', 'midnight', '21:50'];
export const ORGS: readonly string[] = ['the Lighting Board', 'Sallowmere Lighting Board', 'SLB', 'the council', 'the Harbour Office', 'the Quay Traders’ Guild', 'Marsh & Fen Recorders', 'Estuary Pilots', 'the Public Library', 'the Night Bus Depot', 'Amberline Lamps', 'the Sky Club'];
export const NAMES: readonly string[] = ['Maren Oake', 'Mrs Oake', 'Tobias Oake', 'Councillor Fenwick-Lisle', 'Ida Fenwick-Lisle', 'Dr Parr', 'Lena Parr', 'old Mr Quill', 'Harriet Quill', 'Jonah Tace', 'Captain Strand', 'Nell Strand', 'Pim van Loor', 'Rosa Adeyan', 'Mr Adeyan', 'Wilf Garrow', 'Sister Garrow', 'Edda Brine'];
