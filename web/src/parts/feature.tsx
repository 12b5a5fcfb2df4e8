import { type ComponentType, createContext, createElement, Fragment, useContext } from "react";
import type { Action } from "../open/action";
import type { Sheet } from "../open/plan/plan";
import type { DeskTask } from "../open/session";
import type { DrawingKind } from "../stage/view";

/** What the key plan tells those who draw on it. */
export interface OnPlanProps {
  level: number;
  sheet: Sheet;
  pxPerM: number;
  /** The plan is small: what lies on it leaves its rooms to who clicks on them. */
  small: boolean;
}

/** Where features put something, and what each place tells them. */
interface Slots {
  /** Over the stage, as soon as that is there. */
  overStage: object;
  /** Over the stage, while there is a building and it is not shown alone. */
  overBuilding: object;
  /** Once for the page, as soon as the stage is there. */
  page: object;
  /** Lines on the key plan, which turn with it. */
  linesOnPlan: OnPlanProps;
  /** Plates on the key plan, which stay upright. */
  platesOnPlan: OnPlanProps;
  /** At the head of the legend. */
  legend: object;
  /** Below a drawing that is open beside the stage. */
  underDrawing: { of: DrawingKind };
  /** Beside the stage. */
  besideStage: object;
  /** Below stage and board, or in their place. */
  belowStage: object;
}

/** A panel of the desk. */
interface DeskPanel {
  key: DeskTask;
  /** What its tab says. */
  label: string;
  /** How it is fetched when it is needed first. */
  load: () => Promise<ComponentType>;
  /** How much of it is new to this person, which its tab says; a hook. */
  useNew?: () => number;
}

/** What one part of the job brings to the page; every folder of a feature exports one. */
export interface Feature {
  name: string;
  /** What can be done, found by name and by key; a hook, asked in every render of the page. */
  actions?: () => readonly Action[];
  /** Its panel of the desk. */
  desk?: DeskPanel;
  slots?: { readonly [S in keyof Slots]?: readonly ComponentType<Slots[S]>[] };
}

/** The features of the page, in the order in which they are drawn. */
export const FeaturesContext = createContext<readonly Feature[]>([]);

/** What all features put in a place; `told` is what the place tells them. */
export function Slot<S extends keyof Slots>({ of, told }: { of: S; told: Slots[S] }) {
  const features = useContext(FeaturesContext);
  return features.flatMap(({ name, slots }) =>
    (slots?.[of] ?? []).map((Part: ComponentType<Slots[S]>) => (
      <Fragment key={`${name} ${Part.name}`}>{createElement(Part, told)}</Fragment>
    )),
  );
}
