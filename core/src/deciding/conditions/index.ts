export {
  allTests,
  faultOf,
  meets,
  testsOf,
  type Condition,
  type ConditionFault,
  type ConditionField,
  type Conditions,
  type FieldKind,
  type Test,
  type Values,
} from './conditions.ts';
