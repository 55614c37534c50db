/** Reports how far the work is (0 to 1, or null while unknown); throws StepCancelled once the researcher has cancelled. */
export type Progress = (phase: string, share: number | null) => void;
