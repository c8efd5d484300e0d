/* Made from intavo/visitor/wire.py by scripts/generate.sh. */

export interface Wire {
  asked: {
    plan: Visit;
    intake: Sent;
    beats: SaidBeat[];
    more: Wanted;
    helped: Helped;
    talks: Begun;
    messages: SaidNow;
  };
  answered: {
    plan: Plan;
    intake: Taken;
    beats: BeatsKept;
    more: Extras;
    talks: TalkBegun;
    messages: TalkNow;
    problem: Problem;
  };
}
/**
 * One page view. `storage` is false where the browser refuses to remember; `open` is a short name clicked
 * on.
 *
 * `slots` are the short names that the page has places for. `rehearsal` is the signed text of a link that a
 * member opened: the visitor is then the one it stands for.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Visit".
 */
export interface Visit {
  page: Page;
  device: "desktop" | "tablet" | "phone";
  visitor?: Visitor;
  memory?: {
    [k: string]: Memory;
  };
  storage?: boolean;
  rehearsal?: string | null;
  open?: string | null;
  /**
   * @maxItems 50
   */
  slots?: string[];
}
/**
 * A page as it says of itself.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Page".
 */
export interface Page {
  url: string;
  title?: string;
  referrer?: string;
  /**
   * @maxItems 50
   */
  kinds?: string[];
  signed_in?: boolean;
}
/**
 * The visitor as their browser remembers; `utc_offset` in minutes, east positive.
 *
 * `interruptions` counts what has come by itself over the page in this visit.
 */
export interface Visitor {
  id?: string | null;
  language?: string;
  utc_offset?: number;
  visits?: number;
  visit_started?: string | null;
  pages_ever?: number;
  pages_this_visit?: number;
  first_page?: string;
  arrival?: Began;
  on_list?: boolean;
  /**
   * @maxItems 200
   */
  tags?: string[];
  interruptions?: number;
}
/**
 * Where the visit began.
 */
export interface Began {
  url?: string;
  referrer?: string;
}
/**
 * What is remembered of one touchpoint, in the server's time.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Memory".
 */
export interface Memory {
  generation?: number;
  shown?: number;
  last_shown?: string | null;
  last_closed?: string | null;
  answered?: string | null;
}
/**
 * The body of an intake.
 *
 * `corrects` names an earlier one whose address was a slip; `trap` is what stood in the field that only
 * machines fill in; `work` is the answer to the piece of work, where one was asked for.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Sent".
 */
export interface Sent {
  id: string;
  touchpoint: string;
  revision: number;
  variant?: string | null;
  step?: string;
  answers?: {
    [k: string]: string;
  };
  consents?: {
    [k: string]: boolean;
  };
  page: Page;
  device: "desktop" | "tablet" | "phone";
  visitor?: Sender;
  elapsed_ms?: number | null;
  corrects?: string | null;
  trap?: string;
  work?: string;
}
/**
 * The visitor as they send something.
 */
export interface Sender {
  id?: string | null;
  utc_offset?: number | null;
  visits?: number;
  language?: string;
}
/**
 * A beat as a browser sends it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SaidBeat".
 */
export interface SaidBeat {
  id: string;
  touchpoint: string;
  revision: number;
  variant?: string | null;
  what: string;
  page: Page;
  device: "desktop" | "tablet" | "phone";
  at: string;
  channel?: string;
}
/**
 * The body of `more`: for which revision, and by whom.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Wanted".
 */
export interface Wanted {
  touchpoint: string;
  revision: number;
  visitor?: string | null;
  code?: boolean;
  zone?: string | null;
  rehearsal?: string | null;
}
/**
 * The body of `helped`.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Helped".
 */
export interface Helped {
  question: number;
  helped: boolean;
}
/**
 * The body that begins a talk.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Begun".
 */
export interface Begun {
  touchpoint: string;
  revision: number;
  page: Page;
  device: "desktop" | "tablet" | "phone";
  visitor?: TalkVisitor;
}
/**
 * The visitor as they begin a talk.
 */
export interface TalkVisitor {
  id?: string | null;
  utc_offset?: number | null;
  language?: string;
}
/**
 * One thing that a visitor says: a text, a choice, or an address.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SaidNow".
 */
export interface SaidNow {
  id: string;
  text?: string | null;
  choice?: string | null;
  address?: {
    [k: string]: string;
  } | null;
}
/**
 * What may show on a page view. `now` in UTC; `give_way_to`: elements of the site's own that go first.
 *
 * `fixed`: the server's clock stands still, for a demonstration. `channels` are there where a touchpoint
 * uses any.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Plan".
 */
export interface Plan {
  now: string;
  visit_minutes: number;
  give_way_to: string[];
  hours: HoursNow;
  wants?: Wants;
  fixed?: true;
  touchpoints: Entry[];
  channels?: {
    [k: string]: Way;
  };
}
/**
 * How the business is found now, until when (UTC), and what is said.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "HoursNow".
 */
export interface HoursNow {
  situation: string;
  until: string | null;
  says: Told | null;
}
/**
 * What visitors read.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Told".
 */
export interface Told {
  title: string;
  text: string;
}
/**
 * What the rules want to know of the page: its kinds, and an element that says that somebody is signed in
 * to it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Wants".
 */
export interface Wants {
  kinds: boolean;
  signed_in: string;
}
/**
 * A touchpoint of a plan.
 *
 * `needs_more`: it has something that the loader does not carry. `again`: it may come again on the same
 * page, once closed. `moments` are alternatives, of which all parts must come; none: never by itself.
 * `valid_until` in UTC.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Entry".
 */
export interface Entry {
  id: string;
  slug: string;
  revision: number;
  variant: string | null;
  generation: number;
  stance: "pop-up" | "card" | "bar" | "side-panel" | "full-page" | "in-page" | "button";
  order: number;
  queue: "interrupting" | "bar" | "none";
  needs_more: boolean;
  again: boolean;
  valid_until: string;
  moments: Watched[][];
  document: SeenDocument;
}
/**
 * A moment as the visitor's script watches for it: one of what `Moment` may be.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Watched".
 */
export interface Watched {
  after?: number;
  read?: number;
  up?: number;
  view?: string;
  clicks?: number;
  idle?: number;
  leave?: boolean;
  click?: string;
}
/**
 * A document as visitors get it from `for_visitors`: its look resolved, with the words of ours that it
 * needs.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SeenDocument".
 */
export interface SeenDocument {
  version: 1;
  purpose: "sign-up" | "inquiry" | "call" | "message" | "offer" | "question" | "feedback" | "notice";
  stance: "pop-up" | "card" | "bar" | "side-panel" | "full-page" | "in-page" | "button";
  /**
   * @minItems 1
   * @maxItems 20
   */
  steps: Step[];
  leaving: Leaving;
  face: Face;
  spot: Spot;
  look: FullLook;
  speech: Speech;
  then: Then;
}
/**
 * What is shown at one time; `name` is how the owner calls it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "WordSlotRun".
 */
export interface WordSlotRun {
  slot: "first_name" | "promise" | "next_opening" | "code" | "file";
}
/**
 * Rich text, sanitised when it is read; `known` is its wording where the first name is known.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * Time left: to a moment, or so many minutes for each visitor, begun again so many after its end (0: at
 * once).
 *
 * `at_end`: the words stand there, the part goes, or the whole touchpoint is closed.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "LinkItem".
 */
export interface LinkItem {
  label: string;
  does: Does;
}
/**
 * The browser's own share sheet, and copying the link; no address means this page's own.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * Foreign markup, only ever in a sandboxed frame, which is as high as its content; `height` until that is
 * known.
 *
 * `windows`: a window that it opens is a real one, outside of the sandbox.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * What is said, and then either choices, a question, a person, or the next turn; with none of them it
 * ends.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ScriptTurn".
 */
export interface ScriptTurn {
  id: string;
  /**
   * @maxItems 5
   */
  says: (string | ReplySlotRun)[][];
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
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ReplySlotRun".
 */
export interface ReplySlotRun {
  slot: "next_opening" | "closing_time" | "day_name" | "promise" | "back_at" | "first_name" | "open_now";
}
/**
 * A reply that can be clicked: it tags, says, reaches the goal, starts a series, and leads on.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
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
  says: (string | ReplySlotRun)[][];
  next: string | null;
  goal: boolean;
  series: string | null;
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
 * The button itself, where the stance is one: its words, its sign, and what a click does if it opens
 * nothing.
 *
 * `opens`: the first step, or round signs of its channels above it. `size` is its height in CSS pixels, at
 * most a quarter of the screen's short side. `strip`: on phones up to four channels stand along the foot
 * instead. `nudge`: it moves a little after so many seconds on a page while nothing of it is open, twice a
 * visit at most, and never where less motion is asked for.
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
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Greeting".
 */
export interface Greeting {
  after: number;
  text: string;
  picture: string | null;
}
/**
 * Where one that stands in the page goes by itself: before, after or inside the first element that
 * matches.
 */
export interface Spot {
  selector: string;
  where: "before" | "after" | "inside";
}
/**
 * What a visitor's browser draws with: on a desktop and on a phone.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
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
/**
 * What the card is painted with: its colour, a gradient, a picture or a video.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Backdrop".
 */
export interface Backdrop {
  strength: number;
  asset: string | null;
}
/**
 * A typeface: one of the system's, one that is shipped, or the site's own by name.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Font".
 */
export interface Font {
  source: "system" | "shipped" | "site";
  name: string;
}
/**
 * Colours by role, all of them known.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * The close sign: a cross or a word, its size in CSS pixels, and the corner of the card it stands in.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Cross".
 */
export interface Cross {
  style: "sign" | "word";
  word: string;
  size: number;
  place: "end" | "start";
}
/**
 * A look with every value known.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * The language that a touchpoint is drawn in, which way it is read ("": as the page), and its words by
 * their names.
 *
 * Of all words only those that it needs are there.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Speech".
 */
export interface Speech {
  lang: string;
  locale: string;
  dir: "ltr" | "rtl" | "";
  words: {
    add: string;
    ask_us: string;
    away: string;
    before: string;
    choose: string;
    close: string;
    close_greeting: string;
    conversation: string;
    copied: string;
    copy: string;
    copy_link: string;
    d: string;
    day: string;
    fill: string;
    go_on: string;
    good: string;
    h: string;
    helped: string;
    here: string;
    kept: string;
    kept_here: string;
    less: string;
    mean: string;
    message: string;
    min: string;
    more: string;
    no: string;
    no_code: string;
    no_time: string;
    not_sent: string;
    nothing: string;
    one_of_these: string;
    optional: string;
    replies: string;
    s: string;
    say_to: string;
    search: string;
    send: string;
    sending: string;
    step: string;
    thanks: string;
    time: string;
    too_large: string;
    too_long: string;
    trap: string;
    try_again: string;
    unread: string;
    use: string;
    waits: string;
    write: string;
    writing: string;
    yes: string;
    your_email: string;
    your_phone: string;
  };
}
/**
 * What the visitor's script has to know of what comes after: where they go, and what is asked against
 * spam.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Then".
 */
export interface Then {
  page: string;
  trap: boolean;
  work: boolean;
}
/**
 * A way to reach the business, as it is met now.
 *
 * `by`: where its words name the touchpoint, the link of each. `text` and `asks`: where the visitor's words
 * are asked for first, what stands there, and the link with a place for them.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Way".
 */
export interface Way {
  situation: string;
  hidden: boolean;
  says: Told | null;
  people: WayPerson[];
  kind: string;
  label: string;
  button: string;
  icon: string;
  colour: string | null;
  pick: "visitor" | "first-reachable";
  opens: "new" | "same" | "ask-first";
  goal: boolean;
  href: string;
  by?: {
    [k: string]: string;
  };
  text?: string;
  asks?: string;
}
/**
 * Somebody of a channel, and the link that leads to them.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "WayPerson".
 */
export interface WayPerson {
  name: string;
  words: string;
  picture: string | null;
  reachable: boolean;
  href: string;
  by?: {
    [k: string]: string;
  };
}
/**
 * What is answered to what was taken in: the step that comes next, what is said, and what they are given.
 *
 * `tags` are what they have from now on, if anything.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Taken".
 */
export interface Taken {
  next: string | null;
  says: Told | null;
  code: string | null;
  file: FileGiven | null;
  suggest: Suggested | null;
  tags?: string[];
}
/**
 * The signed link of a file that is given, and its words.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FileGiven".
 */
export interface FileGiven {
  url: string;
  label: string;
}
/**
 * Another address that they may have meant.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Suggested".
 */
export interface Suggested {
  email: string;
}
/**
 * How many reports were kept, and how many refused.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "BeatsKept".
 */
export interface BeatsKept {
  kept: number;
  refused: number;
}
/**
 * What some parts need besides their document; in a rehearsal what is told and given by sending as
 * well.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Extras".
 */
export interface Extras {
  slots: {
    [k: string]: SlotOffered[];
  };
  hours: WeekDrawn | null;
  questions: QuestionOffered[];
  channels?: {
    [k: string]: Way;
  };
  code?: string | null;
  work?: Work;
  says?: Told | null;
  given?: string | null;
}
/**
 * A time for a call, with an offset; its day and time as the business writes them.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "SlotOffered".
 */
export interface SlotOffered {
  value: string;
  day: string;
  time: string;
}
/**
 * Whether it is open, the seven days from today, and what is said of it.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "WeekDrawn".
 */
export interface WeekDrawn {
  open: boolean;
  days: DayOpen[];
  says: string;
}
/**
 * A day of the week drawn: the times, as they are written, and what it is called if it is odd.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "DayOpen".
 */
export interface DayOpen {
  day: string;
  spans: string[];
  label: string;
}
/**
 * A question of the business's, and its answer as HTML.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "QuestionOffered".
 */
export interface QuestionOffered {
  id: number;
  group: string;
  question: string;
  answer: string;
}
/**
 * A sum for the visitor's browser: which number up to `max`, after the salt, has this hash. Source:
 * altcha.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Work".
 */
export interface Work {
  algorithm: string;
  challenge: string;
  salt: string;
  signature: string;
  max: number;
}
/**
 * A conversation that has begun, and where it is gone on with.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TalkBegun".
 */
export interface TalkBegun {
  messages: MessageSaid[];
  situation: string;
  choices?: ChoiceOffered[];
  asks?: string | null;
  says?: Told | null;
  typing?: boolean;
  read?: number;
  goal?: boolean;
  handed?: boolean;
  talk: string;
  where: string;
}
/**
 * Something said, by the visitor ("them") or the business ("us", `who`); `n` counts up, `at` in UTC.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "MessageSaid".
 */
export interface MessageSaid {
  n: number;
  who: Speaker | null;
  text: string;
  at: string;
  script: boolean;
  file?: FileSaid;
  from: "us" | "them";
}
/**
 * Who of the business said something, or the business by its script.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Speaker".
 */
export interface Speaker {
  name: string;
  picture: string | null;
}
/**
 * A file in a conversation.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FileSaid".
 */
export interface FileSaid {
  name: string;
  href: string;
  picture: boolean;
}
/**
 * An answer that can be chosen.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "ChoiceOffered".
 */
export interface ChoiceOffered {
  id: string;
  label: string;
}
/**
 * What is new in a conversation. `asks`: what is asked for next ("email", "phone", "text").
 *
 * `says`: what is told by the hours. What may be missing is there where the whole is asked for, or something
 * was said.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TalkNow".
 */
export interface TalkNow {
  messages: MessageSaid[];
  situation: string;
  choices?: ChoiceOffered[];
  asks?: string | null;
  says?: Told | null;
  typing?: boolean;
  read?: number;
  goal?: boolean;
  handed?: boolean;
}
/**
 * Why something was refused (RFC 9457); `errors` name the fields.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Problem".
 */
export interface Problem {
  type?: string;
  title: string;
  status: number;
  errors?: FieldWrong[];
}
/**
 * What is wrong with a field.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "FieldWrong".
 */
export interface FieldWrong {
  field: string;
  message: string;
}
/**
 * Where the visit began.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Began".
 */
export interface Began1 {
  url?: string;
  referrer?: string;
}
/**
 * The button itself, where the stance is one: its words, its sign, and what a click does if it opens
 * nothing.
 *
 * `opens`: the first step, or round signs of its channels above it. `size` is its height in CSS pixels, at
 * most a quarter of the screen's short side. `strip`: on phones up to four channels stand along the foot
 * instead. `nudge`: it moves a little after so many seconds on a page while nothing of it is open, twice a
 * visit at most, and never where less motion is asked for.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * How the visitor gets rid of it: `cross` is the seconds until the close sign comes, None for none.
 *
 * `after`: it goes by itself after so many seconds; `video_end`: at the end of its video. `hold_scroll`:
 * the page behind does not scroll meanwhile.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * The whole script; refused, with the turn named, where it cannot end or goes nowhere.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
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
 * The visitor as they send something.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Sender".
 */
export interface Sender1 {
  id?: string | null;
  utc_offset?: number | null;
  visits?: number;
  language?: string;
}
/**
 * Where one that stands in the page goes by itself: before, after or inside the first element that
 * matches.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Spot".
 */
export interface Spot1 {
  selector: string;
  where: "before" | "after" | "inside";
}
/**
 * The visitor as they begin a talk.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "TalkVisitor".
 */
export interface TalkVisitor1 {
  id?: string | null;
  utc_offset?: number | null;
  language?: string;
}
/**
 * The visitor as their browser remembers; `utc_offset` in minutes, east positive.
 *
 * `interruptions` counts what has come by itself over the page in this visit.
 *
 * This interface was referenced by `Wire`'s JSON-Schema
 * via the `definition` "Visitor".
 */
export interface Visitor1 {
  id?: string | null;
  language?: string;
  utc_offset?: number;
  visits?: number;
  visit_started?: string | null;
  pages_ever?: number;
  pages_this_visit?: number;
  first_page?: string;
  arrival?: Began;
  on_list?: boolean;
  /**
   * @maxItems 200
   */
  tags?: string[];
  interruptions?: number;
}
