/** Words of which pseudonyms are made: nothing that could be taken for what somebody is like, or where they are from. */
export const FIRST_WORDS: readonly string[] = (
  'amber ash azure beige blue brass bright bronze brown calm chalk clear cloud coal cobalt copper coral cream ' +
  'crystal dawn dew dusk ember fern flax flint foam fog frost gold granite grass gravel green grey harvest hazel ' +
  'indigo iron ivory jade lilac lime linen lunar maple marble maroon meadow mint mist moon moss night noon oak ' +
  'ochre olive onyx opal orange paper pearl pine plum pollen quartz quiet rain reed river rose russet rust saffron ' +
  'sage sand scarlet sea shade shell silver sky slate smoke snow spring steel stone straw summer tawny teal thistle ' +
  'tide umber velvet violet warm water wax wheat white willow wind winter wood wool yellow zinc'
).split(' ');

export const SECOND_WORDS: readonly string[] = (
  'acorn alder anchor anvil apple arch arrow aspen badger barn barrel basin basket bay beacon beech bell bench birch ' +
  'blackbird boat bobbin bramble branch bridge brook bucket burrow button cabin candle canoe cedar cello chestnut ' +
  'chimney cliff clover coast comet compass cove crane creek cricket curlew current cypress daisy delta dove drum dune ' +
  'egret elder elm falcon feather fern ferry field finch fjord flame forest fountain fox garden gate glacier glade ' +
  'glen goose gorge grove gull hammock harbour hare harp hawthorn hedge heath heather heron hill hollow horizon hornbeam ' +
  'inlet island ivy jackdaw juniper kestrel kettle kite ladder lagoon lake lantern lark laurel ledge lily linden ' +
  'linnet loom magpie marsh marten meadow mill mirror moor mountain nest newt nook nutmeg orchard otter owl paddle ' +
  'path pebble pelican petal pier pigeon pillar plain plateau plover pond poplar poppy prairie puffin quarry quill rail ' +
  'raven reef ridge ripple robin rook rowan sail sandpiper saucer shore shutter siskin sledge slope sorrel spindle spruce ' +
  'square squirrel stair starling stork stream swallow swan swift sycamore table tern terrace thimble thrush tower trail ' +
  'trellis tulip turnstone valley vine violin wagtail walnut warbler warren wave weir wharf whistle window wren yarrow yew'
).split(' ');
