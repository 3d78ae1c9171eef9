import { useRef } from "react";

/**
 * Lets a field answer once. Enter ends the writing and takes the field away, which then loses the focus: that is no second answer.
 */
export function useOnce<T>(answer: (value: T) => void): (value: T) => void {
  const answered = useRef(false);
  return (value) => {
    if (answered.current) return;
    answered.current = true;
    answer(value);
  };
}
