/* Made from docs/touchpoint.schema.json by scripts/generate.sh. */

/**
 * A touchpoint's document, version 1; `model_validate` raises a ValidationError that names the place.
 */
export interface TouchpointDocument {
  version: 1;
  purpose: "sign-up" | "inquiry";
  stance: "pop-up";
  /**
   * @minItems 1
   * @maxItems 20
   */
  steps: Step[];
  look: Look;
  leaving: Leaving;
  show: Show;
  after: After;
}
/**
 * What is shown at one time.
 */
export interface Step {
  id: string;
  /**
   * @maxItems 60
   */
  parts: (Headline | Text | FieldPart | Consent | Button | ReplyPart)[];
}
/**
 * A line of large words.
 */
export interface Headline {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  kind: "headline";
  text: string;
}
/**
 * Rich text, sanitised when it is read: only the elements listed survive.
 */
export interface Text {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  kind: "text";
  html: string;
}
/**
 * A field that the visitor fills in.
 */
export interface FieldPart {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  kind: "field";
  input: "email" | "text" | "phone" | "long";
  name: string;
  label: string;
  required: boolean;
}
/**
 * A tick with the wording that is agreed to; never ticked beforehand.
 */
export interface Consent {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  kind: "consent";
  name: string;
  text: string;
  required: boolean;
}
/**
 * A button.
 */
export interface Button {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  kind: "button";
  label: string;
  does: Does;
}
/**
 * What a button does: send the step's answers and go on to `next`, or close.
 */
export interface Does {
  action: "send" | "close";
  next: string | null;
}
/**
 * Where the visitor is told when somebody answers.
 */
export interface ReplyPart {
  id: string;
  on: ("desktop" | "phone")[];
  hidden: boolean;
  kind: "reply";
}
/**
 * How it looks; `width` is in CSS pixels.
 */
export interface Look {
  place: "middle" | "top" | "bottom";
  width: number;
  colours: Colours;
  phone: PhoneLook;
}
/**
 * Colours by role, as #rrggbb.
 */
export interface Colours {
  card: string;
  text: string;
  button: string;
  button_text: string;
}
/**
 * What differs on a phone.
 */
export interface PhoneLook {
  place: "middle" | "top" | "bottom";
}
/**
 * How the visitor gets rid of it: `cross` is the seconds until the close sign comes, None for none.
 */
export interface Leaving {
  cross: number | null;
  outside: boolean;
  escape: boolean;
}
/**
 * All rules: any of the sentences shows it, within how often and until.
 */
export interface Show {
  /**
   * @minItems 1
   * @maxItems 20
   */
  sentences: Sentence[];
  how_often: HowOften;
  until: Until;
}
/**
 * Where, to whom and at which moment; the moments are alternatives of which all parts must come.
 */
export interface Sentence {
  /**
   * @maxItems 100
   */
  pages: PagePattern[];
  /**
   * @maxItems 100
   */
  not_pages: PagePattern[];
  devices: ("desktop" | "tablet" | "phone")[];
  /**
   * @maxItems 10
   */
  moments: Moment[][];
}
/**
 * Which pages: one exactly, or one and everything below it.
 */
export interface PagePattern {
  kind: "exact" | "below";
  path: string;
}
/**
 * When, on a page: after so many seconds, or when so much of it is read. Exactly one is given.
 */
export interface Moment {
  after: number | null;
  read: number | null;
}
/**
 * At most once in so many days of 24 hours; None: on every page.
 */
export interface HowOften {
  once_in_days: number | null;
}
/**
 * Not any more after they answered.
 */
export interface Until {
  answered: boolean;
}
/**
 * What follows: whether somebody answers, how soon (open minutes; None: the business's promise), mail.
 */
export interface After {
  follow_up: boolean;
  promise_minutes: number | null;
  thank_you: ThankYou;
}
/**
 * A mail to the visitor straight after they sent it.
 */
export interface ThankYou {
  send: boolean;
  subject: string;
  text: string;
}
