/* Made from docs/touchpoint.schema.json by scripts/generate.sh. */

/**
 * A touchpoint's document, version 1; `model_validate` raises a ValidationError that names the place.
 */
export interface TouchpointDocument {
  version: 1;
  purpose: "sign-up" | "inquiry" | "call" | "message" | "offer" | "question" | "feedback" | "notice";
  stance: "pop-up" | "card" | "bar" | "side-panel" | "full-page" | "in-page" | "button";
  /**
   * @minItems 1
   * @maxItems 20
   */
  steps: Step[];
  look: Look;
  leaving: Leaving;
  show: Show;
  after: After;
  guard: Guard;
  face: Face;
  spot: Spot;
  language: string;
}
/**
 * What is shown at one time; `name` is how the owner calls it.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Step".
 */
export interface Step {
  id: string;
  name: string;
  /**
   * @maxItems 60
   */
  parts: (
    | Headline
    | Text
    | Picture
    | Video
    | FieldPart
    | Consent
    | Button
    | Price
    | Code
    | Countdown
    | Question
    | Score
    | Links
    | Share
    | HoursPart
    | Questions
    | Markup
    | Line
    | Space
    | ReplyPart
    | Channels
    | Talk
  )[];
}
/**
 * A line of large words; `known` is its wording where the visitor's first name is known.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Headline".
 */
export interface Headline {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  kind: "headline";
  text: string;
  known: (string | WordSlotRun)[];
  size: "small" | "medium" | "large";
  colour: string | null;
  align: "start" | "middle" | "end";
}
/**
 * A place in a text that is filled when it is said.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "WordSlotRun".
 */
export interface WordSlotRun {
  slot: "first_name" | "promise" | "next_opening" | "code" | "file";
}
/**
 * Rich text, sanitised when it is read; `known` is its wording where the first name is known.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Text".
 */
export interface Text {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  kind: "text";
  html: string;
  known: string;
  size: "small" | "medium" | "large";
  colour: string | null;
  align: "start" | "middle" | "end";
}
/**
 * A picture: focus point in percent, brightness -80..80, a wash of colour over it in percent.
 *
 * `description` is read out to those who do not see it; empty says nothing at all. `follows` makes a
 * click on it do what the step's first button does. `whole` shows all of it where its box is set, instead
 * of filling the box. The asset `house-logo` is the site's logo; where there is none, nothing stands there.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Picture".
 */
export interface Picture {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  asset: string | null;
  description: string;
  kind: "picture";
  place: "inline" | "above" | "beside" | "behind";
  focus_x: number;
  focus_y: number;
  bright: number;
  wash: number;
  wash_colour: string;
  height: number | null;
  whole: boolean;
  follows: boolean;
}
/**
 * A video, muted until it is clicked.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Video".
 */
export interface Video {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  asset: string | null;
  description: string;
  kind: "video";
  poster: string | null;
}
/**
 * A field. `options` belong to choice and several, `least`/`most` to number, `value` to hidden.
 *
 * A slot offers times for a call: `minutes` long, `notice` minutes ahead at least, `capacity` at once.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "FieldPart".
 */
export interface FieldPart {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  name: string;
  kind: "field";
  input: "email" | "name" | "text" | "phone" | "long" | "choice" | "several" | "number" | "date" | "slot" | "hidden";
  label: string;
  hint: string;
  required: boolean;
  /**
   * @maxItems 50
   */
  options: Option[];
  least: number | null;
  most: number | null;
  value: string;
  minutes: number;
  notice: number;
  capacity: number;
}
/**
 * One choice: what is kept, what is read, and the step it leads to.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Option".
 */
export interface Option {
  value: string;
  label: string;
  next: string | null;
}
/**
 * A tick with the wording that is agreed to; never ticked beforehand.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Consent".
 */
export interface Consent {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  kind: "consent";
  name: string;
  text: string;
  required: boolean;
}
/**
 * A button.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Button".
 */
export interface Button {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  kind: "button";
  label: string;
  does: Does;
  style: "main" | "plain";
}
/**
 * What a click does. `href` is filled only in what visitors get.
 *
 * send and step go on to `next`; page, mail and phone use `address`; file uses `asset`; touchpoint its
 * short name; spot goes to "top", "bottom" or the id of an element of the page; channel goes to the channel
 * with that id ("ch_…"). `goal`: reaches the goal.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Does".
 */
export interface Does {
  action: "send" | "step" | "back" | "page" | "mail" | "phone" | "file" | "touchpoint" | "spot" | "close" | "channel";
  next: string | null;
  address: string;
  asset: string | null;
  touchpoint: string;
  spot: string;
  channel: string;
  tab: "same" | "new";
  goal: boolean;
  href: string;
}
/**
 * A price with the old one beside it; the saving is worked out. Amounts in units of the currency.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Price".
 */
export interface Price {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  kind: "price";
  now: string;
  old: string | null;
  currency: string;
  unit: string;
  show_saving: boolean;
  align: "start" | "middle" | "end";
}
/**
 * Where the code stands that the visitor has been given, with a way to copy it.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Code".
 */
export interface Code {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  kind: "code";
  label: string;
}
/**
 * Time left: to a moment, or so many minutes for each visitor, begun again so many after its end (0: at once).
 *
 * `at_end`: the words stand there, the part goes, or the whole touchpoint is closed.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Countdown".
 */
export interface Countdown {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  kind: "countdown";
  to: string | null;
  minutes: number | null;
  again_after: number | null;
  at_end: "words" | "hide" | "close";
  label: string;
  ended: string;
  align: "start" | "middle" | "end";
}
/**
 * A question with choices; each may go to a step of its own.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Question".
 */
export interface Question {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  name: string;
  kind: "question";
  text: string;
  /**
   * @maxItems 20
   */
  options: Option[];
}
/**
 * A score to give; `bands` choose the next step, `low` and below opens a follow-up.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Score".
 */
export interface Score {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  name: string;
  kind: "score";
  text: string;
  least: number;
  most: number;
  least_label: string;
  most_label: string;
  low: number;
  /**
   * @maxItems 11
   */
  bands: Band[];
}
/**
 * The step that scores from `least` to `most` go to.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Band".
 */
export interface Band {
  least: number;
  most: number;
  next: string;
}
/**
 * A menu of links.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Links".
 */
export interface Links {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  kind: "links";
  /**
   * @maxItems 20
   */
  items: LinkItem[];
  columns: 1 | 2;
}
/**
 * One line of a links menu.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "LinkItem".
 */
export interface LinkItem {
  label: string;
  does: Does;
}
/**
 * The browser's own share sheet, and copying the link; no address means this page's own.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Share".
 */
export interface Share {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  kind: "share";
  label: string;
  address: string;
  words: string;
}
/**
 * Whether it is open now, and the week.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "HoursPart".
 */
export interface HoursPart {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  kind: "hours";
  now: boolean;
  week: boolean;
}
/**
 * The business's questions & answers, all or one group of them.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Questions".
 */
export interface Questions {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  kind: "questions";
  group: string;
  search: boolean;
  helped: boolean;
}
/**
 * Foreign markup, only ever in a sandboxed frame, which is as high as its content; `height` until that is known.
 *
 * `windows`: a window that it opens is a real one, outside of the sandbox.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Markup".
 */
export interface Markup {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  kind: "markup";
  html: string;
  windows: boolean;
  height: number;
  description: string;
}
/**
 * A line between parts.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Line".
 */
export interface Line {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  kind: "line";
}
/**
 * Room between parts, in CSS pixels.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Space".
 */
export interface Space {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  kind: "space";
  height: number;
}
/**
 * Where the visitor is told when somebody answers.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "ReplyPart".
 */
export interface ReplyPart {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  kind: "reply";
}
/**
 * Channels, as rows, tiles or round signs; with `people`, those who stand behind them can be chosen.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Channels".
 */
export interface Channels {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  as: "rows" | "tiles" | "signs";
  kind: "channels";
  channels: string[] | "all";
  people: boolean;
}
/**
 * A conversation in the page: by its script as far as that goes, and then with a person.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Talk".
 */
export interface Talk {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  row: string | null;
  share: number;
  kind: "talk";
  script: Script;
  hint: string;
  files: boolean;
}
/**
 * The whole script; refused, with the turn named, where it cannot end or goes nowhere.
 */
export interface Script {
  version: 1;
  start: string;
  /**
   * @minItems 1
   * @maxItems 60
   */
  turns: ScriptTurn[];
}
/**
 * What is said, and then either choices, a question, a person, or the next turn; with none of them it ends.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "ScriptTurn".
 */
export interface ScriptTurn {
  id: string;
  /**
   * @maxItems 5
   */
  says: (string | SlotRun)[][];
  /**
   * @maxItems 8
   */
  choices: Choice[];
  asks: ("text" | "email" | "phone") | null;
  may_skip: boolean;
  next: string | null;
  hands_over: boolean;
  goal: boolean;
}
/**
 * A place in a text that is filled when it is said.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "SlotRun".
 */
export interface SlotRun {
  slot: "next_opening" | "closing_time" | "day_name" | "promise" | "back_at" | "first_name";
}
/**
 * A reply that can be clicked: it tags, says, reaches the goal, starts a series, and leads on.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Choice".
 */
export interface Choice {
  id: string;
  label: string;
  /**
   * @maxItems 10
   */
  tags: string[];
  /**
   * @maxItems 5
   */
  says: (string | SlotRun)[][];
  next: string | null;
  goal: boolean;
  series: string | null;
}
/**
 * The look of a touchpoint. `house`: what is left open follows the site's house style.
 */
export interface Look {
  place:
    ("middle" | "top" | "bottom" | "left" | "right" | "top-left" | "top-right" | "bottom-left" | "bottom-right") | null;
  edge: number | null;
  edge_y: number | null;
  width: number | null;
  height: ("content" | "screen") | number | null;
  content: ("top" | "middle" | "bottom") | null;
  spacing: number | null;
  corners: number | null;
  border: number | null;
  shadow: ("none" | "soft" | "strong") | null;
  background: Background | null;
  backdrop: Backdrop | null;
  arrival: ("none" | "rise" | "slide" | "fade" | "grow") | null;
  going: ("none" | "rise" | "slide" | "fade" | "grow") | null;
  font: Font | null;
  head_font: Font | null;
  size: number | null;
  head_size: number | null;
  weight: number | null;
  head_weight: number | null;
  button_font: Font | null;
  button_size: number | null;
  card_clear: number | null;
  button_clear: number | null;
  colours: Colours;
  cross: Cross | null;
  pushes: boolean | null;
  stays: boolean | null;
  house: boolean;
  phone: LookValues;
  css: string;
}
/**
 * What the card is painted with: its colour, a gradient, a picture or a video.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Background".
 */
export interface Background {
  kind: "colour" | "gradient" | "picture" | "video";
  start: string;
  end: string;
  angle: number;
  asset: string | null;
  focus_x: number;
  focus_y: number;
  bright: number;
  wash: number;
  wash_colour: string;
}
/**
 * What lies over the page behind: a strength in percent, and perhaps a picture or a video.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Backdrop".
 */
export interface Backdrop {
  strength: number;
  asset: string | null;
}
/**
 * A typeface: one of the system's, one that is shipped, or the site's own by name.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Font".
 */
export interface Font {
  source: "system" | "shipped" | "site";
  name: string;
}
/**
 * Colours by role; what is left open follows.
 */
export interface Colours {
  card: string | null;
  text: string | null;
  headline: string | null;
  button: string | null;
  button_text: string | null;
  button_hover: string | null;
  field: string | null;
  field_text: string | null;
  field_border: string | null;
  border: string | null;
  backdrop: string | null;
  cross: string | null;
}
/**
 * The close sign: a cross or a word, its size in CSS pixels, and the corner of the card it stands in.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Cross".
 */
export interface Cross {
  style: "sign" | "word";
  word: string;
  size: number;
  place: "end" | "start";
}
/**
 * Every value of a look; None follows. Lengths are CSS pixels; `…_clear` is how much shines through, in percent.
 *
 * `edge` is the distance from every edge; for a button it is that from the side, and `edge_y` from top or foot.
 */
export interface LookValues {
  place:
    ("middle" | "top" | "bottom" | "left" | "right" | "top-left" | "top-right" | "bottom-left" | "bottom-right") | null;
  edge: number | null;
  edge_y: number | null;
  width: number | null;
  height: ("content" | "screen") | number | null;
  content: ("top" | "middle" | "bottom") | null;
  spacing: number | null;
  corners: number | null;
  border: number | null;
  shadow: ("none" | "soft" | "strong") | null;
  background: Background | null;
  backdrop: Backdrop | null;
  arrival: ("none" | "rise" | "slide" | "fade" | "grow") | null;
  going: ("none" | "rise" | "slide" | "fade" | "grow") | null;
  font: Font | null;
  head_font: Font | null;
  size: number | null;
  head_size: number | null;
  weight: number | null;
  head_weight: number | null;
  button_font: Font | null;
  button_size: number | null;
  card_clear: number | null;
  button_clear: number | null;
  colours: Colours1;
  cross: Cross | null;
  pushes: boolean | null;
  stays: boolean | null;
}
/**
 * Colours by role; what is left open follows.
 */
export interface Colours1 {
  card: string | null;
  text: string | null;
  headline: string | null;
  button: string | null;
  button_text: string | null;
  button_hover: string | null;
  field: string | null;
  field_text: string | null;
  field_border: string | null;
  border: string | null;
  backdrop: string | null;
  cross: string | null;
}
/**
 * How the visitor gets rid of it: `cross` is the seconds until the close sign comes, None for none.
 *
 * `after`: it goes by itself after so many seconds; `video_end`: at the end of its video. `hold_scroll`:
 * the page behind does not scroll meanwhile.
 */
export interface Leaving {
  cross: number | null;
  outside: boolean;
  escape: boolean;
  after: number | null;
  video_end: boolean;
  hold_scroll: boolean;
}
/**
 * All rules: any of the sentences shows it, within how often and until.
 *
 * `group` is a name that several touchpoints share; `alone`: only if nothing else has interrupted the visit.
 */
export interface Show {
  /**
   * @minItems 1
   * @maxItems 20
   */
  sentences: Sentence[];
  how_often: HowOften;
  until: Until;
  group: string;
  alone: boolean;
}
/**
 * Where, to whom, at which moment and during which times; one of several joined by "or".
 *
 * `sites` are short names of sites, none: all it stands on. Pages, landing pages and kinds of page are
 * any of these, less the ones left out. All of `who` must hold. Moments are alternatives, of which all
 * parts must come; none: never by itself.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Sentence".
 */
export interface Sentence {
  /**
   * @maxItems 50
   */
  sites: string[];
  /**
   * @maxItems 100
   */
  pages: PagePattern[];
  /**
   * @maxItems 100
   */
  not_pages: PagePattern[];
  /**
   * @maxItems 100
   */
  landing: PagePattern[];
  /**
   * @maxItems 100
   */
  not_landing: PagePattern[];
  /**
   * @maxItems 40
   */
  kinds: string[];
  /**
   * @maxItems 40
   */
  not_kinds: string[];
  devices: ("desktop" | "tablet" | "phone")[];
  /**
   * @maxItems 20
   */
  who: (Been | Visits | Pages | Arrival | Referrer | Campaign | SignedIn | Language | OnList | Tagged)[];
  /**
   * @maxItems 10
   */
  moments: Moment[][];
  during: During;
}
/**
 * Which pages: one exactly, one and everything below it, or those whose path matches.
 *
 * `query` holds it against path and query together. A group stands for the patterns that the owner gave that
 * name.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "PagePattern".
 */
export interface PagePattern {
  kind: "exact" | "below" | "contains" | "glob" | "regex" | "group";
  path: string;
  query: boolean;
}
/**
 * They have been on the site before.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Been".
 */
export interface Been {
  unless: boolean;
  kind: "been";
}
/**
 * They are on at least, or at most, so many visits, this one counted.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Visits".
 */
export interface Visits {
  unless: boolean;
  kind: "visits";
  least: number | null;
  most: number | null;
}
/**
 * They have seen at least so many pages, this one counted: in this visit or ever.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Pages".
 */
export interface Pages {
  unless: boolean;
  kind: "pages";
  least: number;
  span: "visit" | "ever";
}
/**
 * How this visit came to the site: any of these ways.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Arrival".
 */
export interface Arrival {
  unless: boolean;
  kind: "arrival";
  /**
   * @minItems 1
   * @maxItems 5
   */
  ways: ("typed" | "search" | "social" | "elsewhere" | "here")[];
}
/**
 * The address they came from matches (host, path and query, without scheme).
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Referrer".
 */
export interface Referrer {
  unless: boolean;
  kind: "referrer";
  address: TextPattern;
}
/**
 * A text to hold against another: the same, contained in it, with * and ?, or a regular expression.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "TextPattern".
 */
export interface TextPattern {
  how: "exact" | "contains" | "glob" | "regex";
  text: string;
}
/**
 * A tag in the address they landed on matches, such as utm_campaign.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Campaign".
 */
export interface Campaign {
  unless: boolean;
  kind: "campaign";
  tag: string;
  value: TextPattern;
}
/**
 * They are signed in to the site, as the site's script or an element on it says.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "SignedIn".
 */
export interface SignedIn {
  unless: boolean;
  kind: "signed_in";
}
/**
 * Their browser speaks one of these languages (BCP 47; "en" takes in "en-GB").
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Language".
 */
export interface Language {
  unless: boolean;
  kind: "language";
  /**
   * @minItems 1
   * @maxItems 40
   */
  languages: string[];
}
/**
 * They are on the list, as far as their browser knows.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "OnList".
 */
export interface OnList {
  unless: boolean;
  kind: "on_list";
}
/**
 * A touchpoint gave them one of these tags.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Tagged".
 */
export interface Tagged {
  unless: boolean;
  kind: "tag";
  /**
   * @minItems 1
   * @maxItems 40
   */
  tags: string[];
}
/**
 * When, on a page. Exactly one is given.
 *
 * `after`: seconds on it; `read`: percent of the way down that was scrolled; `up`: percent, coming back up to it;
 * `view`: an element in view; `clicks`: so many, anywhere; `idle`: seconds without doing anything; `leave`: about to
 * leave; `click`: a click on an element. Elements are named by a selector.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Moment".
 */
export interface Moment {
  after: number | null;
  read: number | null;
  up: number | null;
  view: string | null;
  clicks: number | null;
  idle: number | null;
  leave: true | null;
  click: string | null;
}
/**
 * From a date to a date, on weekdays, between times of day, while open or while closed.
 *
 * Both dates are whole days, or from and until a time of theirs.
 * Dates and times are the business's wall clock, or with `clock` "visitor" the visitor's. A `start` at or
 * after `end` runs into the next day, and belongs to the day on which it starts. `hours` names the opening
 * hours by their id; None: the main ones.
 */
export interface During {
  first: string | null;
  first_time: string | null;
  last: string | null;
  last_time: string | null;
  /**
   * @maxItems 7
   */
  days: ("mon" | "tue" | "wed" | "thu" | "fri" | "sat" | "sun")[];
  start: string | null;
  end: string | null;
  clock: "business" | "visitor";
  only: ("open" | "closed") | null;
  hours: number | null;
}
/**
 * On every page, once a visit, or once in a span; at most so many times ever; how long it stays away once closed.
 *
 * Counted from the moment it is on screen. `moment`: each time its moment comes anew after it was closed, on the
 * same page too: seconds and clicks begin again, and what was scrolled or seen must be scrolled or seen again.
 */
export interface HowOften {
  every: "moment" | "page" | "visit" | "span";
  span: Span;
  most: number | null;
  after_closed: Span1 | null;
}
/**
 * A length of time as the owner says it; a day is 24 hours.
 */
export interface Span {
  n: number;
  unit: "minutes" | "hours" | "days";
}
/**
 * A length of time as the owner says it; a day is 24 hours.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Span".
 */
export interface Span1 {
  n: number;
  unit: "minutes" | "hours" | "days";
}
/**
 * Not any more after they answered: this one, or any touchpoint of its group.
 */
export interface Until {
  answered: boolean;
  group: boolean;
}
/**
 * What follows: whether somebody answers, how soon (open minutes; None: the business's promise), mail.
 *
 * `hours`: the id of the hours that the promise is counted in (None: the site's main hours); `also_hours` are open as
 * well: it is open when any of them is. `page`: where
 * they go instead of a thanks step. `tell`: members' ids who are told by mail.
 */
export interface After {
  follow_up: boolean;
  promise_minutes: number | null;
  hours: number | null;
  /**
   * @maxItems 8
   */
  also_hours: number[];
  thank_you: ThankYou;
  page: string;
  /**
   * @maxItems 20
   */
  tags: string[];
  confirm: Confirm;
  code: GivenCode;
  file: GivenFile;
  /**
   * @maxItems 50
   */
  tell: number[];
  daily_csv: boolean;
}
/**
 * A mail to the visitor straight after they sent it; `reply_to` empty: the business's own address.
 */
export interface ThankYou {
  send: boolean;
  subject: string;
  text: (string | WordSlotRun)[];
  reply_to: string;
}
/**
 * Double opt-in: nothing is given before the button behind the mail's link is pressed.
 *
 * `next`: the step whose words stand on that page once it was pressed; None: the usual ones.
 */
export interface Confirm {
  on: boolean;
  next: string | null;
  subject: string;
  text: (string | WordSlotRun)[];
  button: string;
}
/**
 * A code: one for everybody (`shared`), or one each from the touchpoint's list.
 */
export interface GivenCode {
  kind: "none" | "shared" | "each";
  shared: string;
  show: boolean;
  mail: boolean;
}
/**
 * A file by a signed link.
 */
export interface GivenFile {
  asset: string | null;
  label: string;
}
/**
 * What is asked of a sender against spam: a hidden trap, a least time, and perhaps a piece of work.
 *
 * The least time is short by default: it stops programs, and nobody whose browser fills in what it knows.
 */
export interface Guard {
  trap: boolean;
  least_seconds: number;
  work: boolean;
}
/**
 * The button itself, where the stance is one: its words, its sign, and what a click does if it opens nothing.
 *
 * `opens`: the first step, or round signs of its channels above it. `size` is its height in CSS pixels, at most a
 * quarter of the screen's short side. `strip`: on phones up to four channels stand along the foot instead. `nudge`: it
 * moves a little after so many seconds on a page while nothing of it is open, twice a visit at most, and never where
 * less motion is asked for.
 */
export interface Face {
  label: string;
  sign: "none" | "question" | "phone" | "mail" | "message" | "gift";
  does: Does | null;
  opens: "step" | "signs";
  shape: "pill" | "rounded" | "round" | "tab";
  size: number;
  picture: string | null;
  fills: boolean;
  strip: boolean;
  greeting: Greeting | null;
  nudge: number | null;
}
/**
 * Words beside the button, after so many seconds, once a visit; with a person's picture.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Greeting".
 */
export interface Greeting {
  after: number;
  text: string;
  picture: string | null;
}
/**
 * Where one that stands in the page goes by itself: before, after or inside the first element that matches.
 */
export interface Spot {
  selector: string;
  where: "before" | "after" | "inside";
}
/**
 * What follows: whether somebody answers, how soon (open minutes; None: the business's promise), mail.
 *
 * `hours`: the id of the hours that the promise is counted in (None: the site's main hours); `also_hours` are open as
 * well: it is open when any of them is. `page`: where
 * they go instead of a thanks step. `tell`: members' ids who are told by mail.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "After".
 */
export interface After1 {
  follow_up: boolean;
  promise_minutes: number | null;
  hours: number | null;
  /**
   * @maxItems 8
   */
  also_hours: number[];
  thank_you: ThankYou;
  page: string;
  /**
   * @maxItems 20
   */
  tags: string[];
  confirm: Confirm;
  code: GivenCode;
  file: GivenFile;
  /**
   * @maxItems 50
   */
  tell: number[];
  daily_csv: boolean;
}
/**
 * Colours by role; what is left open follows.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Colours".
 */
export interface Colours2 {
  card: string | null;
  text: string | null;
  headline: string | null;
  button: string | null;
  button_text: string | null;
  button_hover: string | null;
  field: string | null;
  field_text: string | null;
  field_border: string | null;
  border: string | null;
  backdrop: string | null;
  cross: string | null;
}
/**
 * Double opt-in: nothing is given before the button behind the mail's link is pressed.
 *
 * `next`: the step whose words stand on that page once it was pressed; None: the usual ones.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Confirm".
 */
export interface Confirm1 {
  on: boolean;
  next: string | null;
  subject: string;
  text: (string | WordSlotRun)[];
  button: string;
}
/**
 * From a date to a date, on weekdays, between times of day, while open or while closed.
 *
 * Both dates are whole days, or from and until a time of theirs.
 * Dates and times are the business's wall clock, or with `clock` "visitor" the visitor's. A `start` at or
 * after `end` runs into the next day, and belongs to the day on which it starts. `hours` names the opening
 * hours by their id; None: the main ones.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "During".
 */
export interface During1 {
  first: string | null;
  first_time: string | null;
  last: string | null;
  last_time: string | null;
  /**
   * @maxItems 7
   */
  days: ("mon" | "tue" | "wed" | "thu" | "fri" | "sat" | "sun")[];
  start: string | null;
  end: string | null;
  clock: "business" | "visitor";
  only: ("open" | "closed") | null;
  hours: number | null;
}
/**
 * The button itself, where the stance is one: its words, its sign, and what a click does if it opens nothing.
 *
 * `opens`: the first step, or round signs of its channels above it. `size` is its height in CSS pixels, at most a
 * quarter of the screen's short side. `strip`: on phones up to four channels stand along the foot instead. `nudge`: it
 * moves a little after so many seconds on a page while nothing of it is open, twice a visit at most, and never where
 * less motion is asked for.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Face".
 */
export interface Face1 {
  label: string;
  sign: "none" | "question" | "phone" | "mail" | "message" | "gift";
  does: Does | null;
  opens: "step" | "signs";
  shape: "pill" | "rounded" | "round" | "tab";
  size: number;
  picture: string | null;
  fills: boolean;
  strip: boolean;
  greeting: Greeting | null;
  nudge: number | null;
}
/**
 * A code: one for everybody (`shared`), or one each from the touchpoint's list.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "GivenCode".
 */
export interface GivenCode1 {
  kind: "none" | "shared" | "each";
  shared: string;
  show: boolean;
  mail: boolean;
}
/**
 * A file by a signed link.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "GivenFile".
 */
export interface GivenFile1 {
  asset: string | null;
  label: string;
}
/**
 * What is asked of a sender against spam: a hidden trap, a least time, and perhaps a piece of work.
 *
 * The least time is short by default: it stops programs, and nobody whose browser fills in what it knows.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Guard".
 */
export interface Guard1 {
  trap: boolean;
  least_seconds: number;
  work: boolean;
}
/**
 * On every page, once a visit, or once in a span; at most so many times ever; how long it stays away once closed.
 *
 * Counted from the moment it is on screen. `moment`: each time its moment comes anew after it was closed, on the
 * same page too: seconds and clicks begin again, and what was scrolled or seen must be scrolled or seen again.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "HowOften".
 */
export interface HowOften1 {
  every: "moment" | "page" | "visit" | "span";
  span: Span;
  most: number | null;
  after_closed: Span1 | null;
}
/**
 * How the visitor gets rid of it: `cross` is the seconds until the close sign comes, None for none.
 *
 * `after`: it goes by itself after so many seconds; `video_end`: at the end of its video. `hold_scroll`:
 * the page behind does not scroll meanwhile.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Leaving".
 */
export interface Leaving1 {
  cross: number | null;
  outside: boolean;
  escape: boolean;
  after: number | null;
  video_end: boolean;
  hold_scroll: boolean;
}
/**
 * The look of a touchpoint. `house`: what is left open follows the site's house style.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Look".
 */
export interface Look1 {
  place:
    ("middle" | "top" | "bottom" | "left" | "right" | "top-left" | "top-right" | "bottom-left" | "bottom-right") | null;
  edge: number | null;
  edge_y: number | null;
  width: number | null;
  height: ("content" | "screen") | number | null;
  content: ("top" | "middle" | "bottom") | null;
  spacing: number | null;
  corners: number | null;
  border: number | null;
  shadow: ("none" | "soft" | "strong") | null;
  background: Background | null;
  backdrop: Backdrop | null;
  arrival: ("none" | "rise" | "slide" | "fade" | "grow") | null;
  going: ("none" | "rise" | "slide" | "fade" | "grow") | null;
  font: Font | null;
  head_font: Font | null;
  size: number | null;
  head_size: number | null;
  weight: number | null;
  head_weight: number | null;
  button_font: Font | null;
  button_size: number | null;
  card_clear: number | null;
  button_clear: number | null;
  colours: Colours;
  cross: Cross | null;
  pushes: boolean | null;
  stays: boolean | null;
  house: boolean;
  phone: LookValues;
  css: string;
}
/**
 * Every value of a look; None follows. Lengths are CSS pixels; `…_clear` is how much shines through, in percent.
 *
 * `edge` is the distance from every edge; for a button it is that from the side, and `edge_y` from top or foot.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "LookValues".
 */
export interface LookValues1 {
  place:
    ("middle" | "top" | "bottom" | "left" | "right" | "top-left" | "top-right" | "bottom-left" | "bottom-right") | null;
  edge: number | null;
  edge_y: number | null;
  width: number | null;
  height: ("content" | "screen") | number | null;
  content: ("top" | "middle" | "bottom") | null;
  spacing: number | null;
  corners: number | null;
  border: number | null;
  shadow: ("none" | "soft" | "strong") | null;
  background: Background | null;
  backdrop: Backdrop | null;
  arrival: ("none" | "rise" | "slide" | "fade" | "grow") | null;
  going: ("none" | "rise" | "slide" | "fade" | "grow") | null;
  font: Font | null;
  head_font: Font | null;
  size: number | null;
  head_size: number | null;
  weight: number | null;
  head_weight: number | null;
  button_font: Font | null;
  button_size: number | null;
  card_clear: number | null;
  button_clear: number | null;
  colours: Colours1;
  cross: Cross | null;
  pushes: boolean | null;
  stays: boolean | null;
}
/**
 * The whole script; refused, with the turn named, where it cannot end or goes nowhere.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Script".
 */
export interface Script1 {
  version: 1;
  start: string;
  /**
   * @minItems 1
   * @maxItems 60
   */
  turns: ScriptTurn[];
}
/**
 * All rules: any of the sentences shows it, within how often and until.
 *
 * `group` is a name that several touchpoints share; `alone`: only if nothing else has interrupted the visit.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Show".
 */
export interface Show1 {
  /**
   * @minItems 1
   * @maxItems 20
   */
  sentences: Sentence[];
  how_often: HowOften;
  until: Until;
  group: string;
  alone: boolean;
}
/**
 * Where one that stands in the page goes by itself: before, after or inside the first element that matches.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Spot".
 */
export interface Spot1 {
  selector: string;
  where: "before" | "after" | "inside";
}
/**
 * A mail to the visitor straight after they sent it; `reply_to` empty: the business's own address.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "ThankYou".
 */
export interface ThankYou1 {
  send: boolean;
  subject: string;
  text: (string | WordSlotRun)[];
  reply_to: string;
}
/**
 * Not any more after they answered: this one, or any touchpoint of its group.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "Until".
 */
export interface Until1 {
  answered: boolean;
  group: boolean;
}
/**
 * Colours by role, all of them known.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "FullColours".
 */
export interface FullColours {
  card: string;
  text: string;
  headline: string;
  button: string;
  button_text: string;
  button_hover: string;
  field: string;
  field_text: string;
  field_border: string;
  border: string;
  backdrop: string;
  cross: string;
}
/**
 * A look with every value known.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "FullValues".
 */
export interface FullValues {
  place: "middle" | "top" | "bottom" | "left" | "right" | "top-left" | "top-right" | "bottom-left" | "bottom-right";
  edge: number;
  edge_y: number;
  width: number;
  height: ("content" | "screen") | number;
  content: "top" | "middle" | "bottom";
  spacing: number;
  corners: number;
  border: number;
  shadow: "none" | "soft" | "strong";
  background: Background;
  backdrop: Backdrop;
  arrival: "none" | "rise" | "slide" | "fade" | "grow";
  going: "none" | "rise" | "slide" | "fade" | "grow";
  font: Font;
  head_font: Font;
  size: number;
  head_size: number;
  weight: number;
  head_weight: number;
  button_font: Font;
  button_size: number;
  card_clear: number;
  button_clear: number;
  colours: FullColours;
  cross: Cross;
  pushes: boolean;
  stays: boolean;
}
/**
 * What a visitor's browser draws with: on a desktop and on a phone.
 *
 * This interface was referenced by `TouchpointDocument`'s JSON-Schema
 * via the `definition` "FullLook".
 */
export interface FullLook {
  place: "middle" | "top" | "bottom" | "left" | "right" | "top-left" | "top-right" | "bottom-left" | "bottom-right";
  edge: number;
  edge_y: number;
  width: number;
  height: ("content" | "screen") | number;
  content: "top" | "middle" | "bottom";
  spacing: number;
  corners: number;
  border: number;
  shadow: "none" | "soft" | "strong";
  background: Background;
  backdrop: Backdrop;
  arrival: "none" | "rise" | "slide" | "fade" | "grow";
  going: "none" | "rise" | "slide" | "fade" | "grow";
  font: Font;
  head_font: Font;
  size: number;
  head_size: number;
  weight: number;
  head_weight: number;
  button_font: Font;
  button_size: number;
  card_clear: number;
  button_clear: number;
  colours: FullColours;
  cross: Cross;
  pushes: boolean;
  stays: boolean;
  phone: FullValues;
  css: string;
}
