import { useEffect, useRef, useState } from "react";

/** Pixels. */
export interface Size {
  width: number;
  height: number;
}

/** The size of an element as it is laid out, kept up to date; undefined before it was measured. */
export function useSize(): [ref: React.RefObject<HTMLElement | null>, size: Size | undefined] {
  const ref = useRef<HTMLElement>(null);
  const [size, setSize] = useState<Size>();
  useEffect(() => {
    const element = ref.current;
    if (!element) return;
    const measure = () => setSize({ width: element.clientWidth, height: element.clientHeight });
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, size];
}
