export { base64Of } from './base64.ts';
export { Baton } from './Baton.tsx';
export { Card, Column, Labelled, Row, Rule } from './Box.tsx';
export { CartDrawing, endOf, type CartCell } from './CartDrawing.tsx';
export { Choice } from './Choice.tsx';
export { ConditionsBuilder } from './ConditionsBuilder.tsx';
export { DataTable, type TableColumn, type TableEntry } from './DataTable.tsx';
export { DayField } from './DayField.tsx';
export { Drop } from './Drop.tsx';
export { DropPlace } from './DropPlace.tsx';
export { Facts, type Fact } from './Facts.tsx';
export { FaultTable } from './FaultTable.tsx';
export { Field } from './Field.tsx';
export { Finish } from './Finish.tsx';
export { FloorPlan } from './floor/FloorPlan.tsx';
export { HeatLegend } from './floor/HeatLegend.tsx';
export type { PlanPerson } from './floor/People.tsx';
export { aheadUp, planAround, wholePlan, type PlanView, type Point } from './floor/planView.ts';
export { mostToPick } from './floor/Racks.tsx';
export { stopsOf } from './floor/stopsOf.ts';
export { cutWalk } from './floor/walk.ts';
export { PanZoom } from './PanZoom.tsx';
export {
  PAUSES,
  readTrial,
  recordKeys,
  scannerEnds,
  scannerHere,
  setScanner,
  usualScanner,
  useScans,
  useShortcuts,
  type Press,
  type Scanner,
  type Tried,
} from './keys/index.ts';
export { BoxDrawing, type DrawnState } from './BoxDrawing.tsx';
export { Button } from './Button.tsx';
export { LinkBox } from './LinkBox.tsx';
export { Icon, type IconName } from './Icon.tsx';
export { MatchColumns } from './MatchColumns.tsx';
export { Picker } from './Picker.tsx';
export { useHandoffRow } from './handoff.tsx';
export { Illustration } from './Illustration.tsx';
export { fetchPictures, Picture } from './Picture.tsx';
export { Ribbon, type RibbonStop } from './Ribbon.tsx';
export { saveFile } from './saveFile.ts';
export { SaidBand, type Said } from './SaidBand.tsx';
export { ScanField } from './ScanField.tsx';
export { Sheet } from './Sheet.tsx';
export { Shape, Signal, type SignalKind } from './Signal.tsx';
export { play, type Sound } from './sound.ts';
export { Empty, Failed, Loading } from './State.tsx';
export { StepCard, type StepCardProps } from './StepCard.tsx';
export { Stripes } from './Stripes.tsx';
export { charcoal, hivis, SurfaceContext, useNarrow, useSurface, WIDE, type SurfaceName } from './theme.ts';
export { Checkbox } from './Checkbox.tsx';
export { Text } from './Text.tsx';
export { Suggest, type Suggestion } from './Suggest.tsx';
export { useSettled } from './useSettled.ts';
export { useSwipe } from './useSwipe.ts';
