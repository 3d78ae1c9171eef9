import type { StoreApi } from "zustand";
import { usePreferences } from "../ui/preferences.ts";
import { createDocument, type DocumentState } from "./document.ts";
import { createFindings, type FindingsState } from "./findings.ts";
import { createFocus, type FocusState } from "./focus.ts";
import { createFollowing } from "./following.ts";
import type { FollowingState } from "./followingState.ts";
import { createLensing, type LensState } from "./lensing.ts";
import { createNotices, type NoticeState } from "./notices.ts";
import { createPictures, filesKept, type PicturesState } from "./pictures.ts";
import { createPointing, type PointingState } from "./pointing.ts";
import { createRenaming, type RenamingState } from "./renaming.ts";
import { createSeeing, type SeeingState } from "./seeing.ts";
import { createSelection, type SelectionState } from "./selection.ts";
import { createSheets, type SheetState } from "./sheets.ts";
import type { Loaded } from "./storage/projects.ts";
import { createTrying, type TryingState } from "./trying.ts";
import { createWalk, type WalkState } from "./walk.ts";

/** Where a project can be looked at; and the list of all projects. */
export type View = "map" | "walk" | "pictures" | "rules" | "parameters" | "versions" | "hand-off" | "projects";

/**
 * An open project: its document and everything that is known of it only while it is open. It is made with its route and ended with
 * it, so nothing of one project is left when another is opened.
 */
export class Session {
  readonly document: StoreApi<DocumentState>;
  readonly findings: StoreApi<FindingsState>;
  readonly selection: StoreApi<SelectionState> = createSelection();
  readonly walk: StoreApi<WalkState> = createWalk();
  readonly focus: StoreApi<FocusState> = createFocus();
  readonly seeing: StoreApi<SeeingState> = createSeeing(usePreferences.getState().drawing);
  readonly lensing: StoreApi<LensState>;
  readonly notices: StoreApi<NoticeState> = createNotices();
  readonly renaming: StoreApi<RenamingState> = createRenaming();
  readonly trying: StoreApi<TryingState> = createTrying();
  readonly sheets: StoreApi<SheetState> = createSheets();
  readonly pictures: StoreApi<PicturesState>;
  readonly pointing: StoreApi<PointingState>;
  readonly following: StoreApi<FollowingState>;
  /** Goes to another view; the page that shows the project says how. */
  go: (view: View) => void = () => undefined;
  private readonly closing: Array<() => unknown>;

  /** @param loaded the document as it was read for the route */
  constructor(
    readonly id: string,
    loaded?: Loaded,
  ) {
    // Without pictures there is nothing in their files that a finding could be about.
    const recheck = () => {
      const { project } = this.document.getState();
      if (project.screens.some((screen) => screen.pictures)) this.findings.getState().again(project);
    };
    const pictures = createPictures(id, recheck);
    this.pictures = pictures.store;
    const beside = () => ({ files: filesKept(pictures.store.getState()), far: usePreferences.getState().far });
    const [document, findings, lensing] = [createDocument(id, loaded), createFindings(beside), createLensing()];
    this.lensing = lensing.store;
    this.document = document.store;
    this.findings = findings.store;
    this.pointing = createPointing(this.document);
    this.following = createFollowing(this.walk, () => this.document.getState().project);
    const preferences = usePreferences.subscribe(({ far }, before) => {
      if (far !== before.far) this.findings.getState().again(this.document.getState().project);
    });
    this.closing = [preferences, pictures.close, document.close, findings.close, lensing.close, () => this.walk.getState().stopPlaying()];
  }

  /** What is queued is still saved; the worker ends, and nothing more is told. */
  close() {
    for (const close of this.closing) close();
  }
}
