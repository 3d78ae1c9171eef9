import { ACTIONS } from "./all/actions.ts";
import { ALLOW } from "./all/allow.ts";
import { CONFIRM } from "./all/confirm.ts";
import { FILTER } from "./all/filter.ts";
import { FLOW } from "./all/flow.ts";
import { FORM } from "./all/form.ts";
import { HELP } from "./all/help.ts";
import { LIST } from "./all/list.ts";
import { MEMBERS } from "./all/members.ts";
import { MENU } from "./all/menu.ts";
import { NOTIFICATION } from "./all/notification.ts";
import { PHOTO } from "./all/photo.ts";
import { PICK } from "./all/pick.ts";
import { SEARCH } from "./all/search.ts";
import { SEND } from "./all/send.ts";
import { SETTINGS } from "./all/settings.ts";
import { SIGN_IN } from "./all/signIn.ts";
import { SPLASH } from "./all/splash.ts";
import { STEPS } from "./all/steps.ts";
import { TABS } from "./all/tabs.ts";
import { TOUR } from "./all/tour.ts";
import { UNSAVED } from "./all/unsaved.ts";
import type { Pattern } from "./pattern.ts";

/** All patterns, in the order in which they are offered: what stands around an app, what stands before it, what is on a screen. */
export const PATTERNS: readonly Pattern[] = [
  TABS,
  MENU,
  SIGN_IN,
  TOUR,
  SPLASH,
  LIST,
  STEPS,
  FLOW,
  FORM,
  PICK,
  SEARCH,
  FILTER,
  SETTINGS,
  HELP,
  UNSAVED,
  CONFIRM,
  SEND,
  MEMBERS,
  ALLOW,
  ACTIONS,
  PHOTO,
  NOTIFICATION,
];
