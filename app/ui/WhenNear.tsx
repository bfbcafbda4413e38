import { useEffect, useRef, useState, type ReactNode } from 'react';

/** What is costly to make, made when it is scrolled near to; until then its place is kept. */
export function WhenNear({ height, children }: { height: number; children: ReactNode }) {
  const place = useRef<HTMLDivElement>(null);
  const [near, setNear] = useState(false);
  useEffect(() => {
    const observer = new IntersectionObserver((entries) => entries.some((one) => one.isIntersecting) && setNear(true), {
      // Of what scrolls: a margin about the window ends at the first edge that cuts off.
      root: place.current?.closest('.alone') ?? null,
      rootMargin: '200px',
    });
    if (place.current) observer.observe(place.current);
    return () => observer.disconnect();
  }, []);
  return near ? children : <div ref={place} style={{ height }} />;
}
