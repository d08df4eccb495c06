export { factsAheadOf, readersOf } from './facts-ahead';
export {
  type ChangeModel,
  countedPhaseOf,
  findPublication,
  type HopModel,
  isForbidden,
  modelOf,
  type PatchModel,
  type PhaseModel,
  type ProductModel,
  type ReleaseModel,
  type RightModel,
  serviceEndOf
} from './model';
export type {
  CautionModel,
  CompanionModel,
  Cure,
  CureModel,
  DemandModel,
  NeedModel,
  PairingModel
} from './need-model';
export { idsOfPlace } from './place-ids';
export { NOTHING, type Place, targetKey } from './place';
