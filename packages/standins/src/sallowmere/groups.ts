/** The groups of the demo's story. `lone` accounts post once and talk to nobody; `passing` ones mention or answer once or twice. */
export type GroupName =
  'moths' | 'stars' | 'night' | 'pilots' | 'traders' | 'council' | 'press' | 'ring' | 'passing' | 'lone';

export interface GroupPlan {
  readonly name: GroupName;
  readonly accounts: number;
  /** Share of the messages. */
  readonly share: number;
  /** Chance that a message which addresses somebody stays in the group. */
  readonly closed: number;
  /** First and second parts of handles. */
  readonly handles: readonly [readonly string[], readonly string[]];
  readonly hashtags: readonly string[];
}

export const GROUPS: readonly GroupPlan[] = [
  {
    name: 'moths',
    accounts: 168,
    share: 0.16,
    closed: 0.93,
    handles: [
      ['marsh', 'moth', 'bat', 'hawk', 'dusk', 'wing', 'sedge', 'reed', 'owl', 'lamp', 'pale', 'hedge'],
      [
        'moths',
        'counts',
        'watch',
        'line',
        'notes',
        'records',
        'walker',
        'trap',
        'diary',
        'fen',
        'ears',
        'log',
      ],
    ],
    hashtags: [
      'MothCount',
      'BatLine',
      'HawkMothWeek',
      'NightPollinators',
      'mothcount',
      'BatsOverTheMarsh',
      'AmberForMoths',
      'MarshDiary',
      'TrapNight',
      'WildSallowmere',
    ],
  },
  {
    name: 'stars',
    accounts: 138,
    share: 0.12,
    closed: 0.9,
    handles: [
      ['star', 'orbit', 'dark', 'north', 'comet', 'sky', 'lens', 'meteor', 'plough', 'zenith', 'luna'],
      ['gazer', 'sallow', 'field', 'hours', 'tripod', 'dome', 'seeker', 'watch', 'finder', 'patch', 'chart'],
    ],
    hashtags: [
      'DarkSkies',
      'StarsOverSallowmere',
      'darkskies',
      'MilkyWayFromTheWall',
      'SeeingTonight',
      'SkyQuality',
      'LyridNight',
      'TelescopeTuesday',
      'DimTheWall',
      'dimthewall',
    ],
  },
  {
    name: 'night',
    accounts: 208,
    share: 0.17,
    closed: 0.91,
    handles: [
      ['late', 'night', 'shift', 'walk', 'ward', 'bake', 'porter', 'home', 'slip', 'lane', 'key', 'dawn'],
      [
        'rosa',
        'shift',
        'walker',
        'home',
        'tom',
        'nadia',
        'bakery',
        'porter',
        'lane',
        'carla',
        'benji',
        'feet',
        'owl',
      ],
    ],
    hashtags: [
      'SafeWalkHome',
      'safewalkhome',
      'NightShift',
      'KeepTheLanesLit',
      'LastBus',
      'HomeAfterDark',
      'WhoWalksAtNight',
      'LanesNotLoopholes',
      'LateShiftLife',
      'PieFriday',
    ],
  },
  {
    name: 'pilots',
    accounts: 118,
    share: 0.1,
    closed: 0.9,
    handles: [
      ['pilot', 'ferry', 'tide', 'buoy', 'quay', 'skipper', 'channel', 'deck', 'helm', 'estuary'],
      ['two', 'slip', 'crew', 'hand', 'bar', 'mate', 'watch', 'rope', 'lights', 'bell', 'south'],
    ],
    hashtags: [
      'HarbourLights',
      'FerryTimes',
      'LeadingLights',
      'PilotLadder',
      'EstuaryFog',
      'harbourlights',
      'GlareOnTheWater',
      'NightBerth',
      'TideTables',
      'SlipwayNews',
    ],
  },
  {
    name: 'traders',
    accounts: 218,
    share: 0.17,
    closed: 0.89,
    handles: [
      [
        'quay',
        'slip',
        'pie',
        'net',
        'salt',
        'corner',
        'anchor',
        'chandler',
        'fry',
        'harbour',
        'kiosk',
        'bread',
      ],
      [
        'traders',
        'cafe',
        'stall',
        'shop',
        'arms',
        'loft',
        'bakes',
        'goods',
        'books',
        'inn',
        'yard',
        'window',
      ],
    ],
    hashtags: [
      'QuayTraders',
      'OpenLateSallowmere',
      'FootfallMatters',
      'ShopTheQuay',
      'SummerSeason',
      'openlatesallowmere',
      'PieFriday',
      'QuayAfterSix',
      'EmptyTables',
      'TradersMeeting',
    ],
  },
  {
    name: 'council',
    accounts: 108,
    share: 0.09,
    closed: 0.86,
    handles: [
      ['council', 'ward', 'civic', 'lamp', 'works', 'street', 'lux', 'plan', 'grid', 'public'],
      [
        'desk',
        'works',
        'clerk',
        'office',
        'north',
        'engineer',
        'fitter',
        'forum',
        'planner',
        'record',
        'south',
      ],
    ],
    hashtags: [
      'LampFacts',
      'TownHall24March',
      'AmberTrial',
      'LightingBoard',
      'VoteOnTheLamps',
      'LuxMeter',
      'HaveYourSay',
      'DimTheSeaWall',
      'MinutesAndMotions',
      'lampfacts',
    ],
  },
  {
    name: 'press',
    accounts: 38,
    share: 0.06,
    closed: 0.3,
    handles: [
      ['harbour', 'estuary', 'sallowmere', 'low_tide', 'library', 'reading', 'page'],
      ['post', 'news', 'library', 'desk', 'room', 'gazette', 'radio', 'two'],
    ],
    hashtags: [
      'SallowmereNews',
      'HearingLive',
      'LibraryTalks',
      'TownHall24March',
      'AskTheLibrary',
      'LampVoteLive',
      'sallowmerenews',
      'LocalPress',
    ],
  },
  {
    name: 'ring',
    accounts: 25,
    share: 0.05,
    closed: 0.85,
    handles: [
      ['true', 'proud', 'real', 'fair', 'honest', 'loyal', 'plain'],
      ['light', 'voice', 'town', 'lamp', 'neighbour', 'street', 'people'],
    ],
    hashtags: ['KeepOurLights', 'LightIsSafety', 'NoToAmber', 'KeepOurLightsOn'],
  },
  {
    name: 'passing',
    accounts: 215,
    share: 0.035,
    closed: 0,
    handles: [
      ['jo', 'sam', 'ines', 'piet', 'wren', 'moss', 'ash', 'tilda', 'ola', 'remy', 'cleo', 'bram'],
      ['k', 'by_sea', 'again', 'travels', 'of_late', 'says', 'ok', 'and_dog', 'runs', 'reads', 'hm'],
    ],
    hashtags: ['Sallowmere', 'WeekendAway', 'HarbourWalk', 'SeaWallSunset'],
  },
  {
    name: 'lone',
    accounts: 162,
    share: 0,
    closed: 0,
    handles: [
      ['visitor', 'guest', 'drift', 'passer', 'gull', 'shell', 'pebble', 'sand', 'kite'],
      ['one', 'here', 'by', 'log', 'maybe', 'away', 'weekend', 'soon', 'lost'],
    ],
    hashtags: ['Sallowmere', 'SeaWallSunset', 'HarbourWalk', 'WeekendAway'],
  },
];

/** Groups that talk to each other, beside their own; the rest of their outward talk goes to the press. */
export const NEIGHBOURS: Readonly<Record<GroupName, readonly GroupName[]>> = {
  moths: ['stars', 'press', 'council'],
  stars: ['moths', 'press', 'council'],
  night: ['traders', 'press', 'council'],
  pilots: ['council', 'press', 'traders'],
  traders: ['night', 'pilots', 'press'],
  council: ['press', 'traders', 'pilots'],
  press: ['moths', 'stars', 'night', 'pilots', 'traders', 'council'],
  ring: ['council', 'press'],
  passing: ['press', 'traders', 'stars', 'night'],
  lone: [],
};

/** After the power failure of 9 May everybody looks up. */
export const LATE_TREND = ['BlackoutNight', 'WhenItWentDark', 'LookUpSallowmere', 'blackoutnight'];

export const COLLECTING_TAG = 'LateLampPlan';
export const LOUD = { handle: 'wall_lamps_now', name: 'WALL LAMPS NOW' };
export const DRIVER = { handle: 'nightbus14', name: 'Night Bus 14' };
