'use client';

import { Fragment } from 'react';
import { Inside } from './filling/inside';
import { Centerline } from './lines/centerline';
import { Dots } from './lines/dots';
import { NothingYet, useShownParts } from './shown-parts';

/** What happens to the area inside the outlines. */
export function Fill() {
  const parts = useShownParts(true);
  if (parts.length === 0) return <NothingYet>Nothing to fill yet: add lettering or a shape first.</NothingYet>;
  return (
    <>
      {parts.map(({ part, view }) => (
        <Fragment key={part.id}>
          <Inside part={part} view={view} />
          <Centerline part={part} view={view} />
          <Dots part={part} view={view} />
        </Fragment>
      ))}
    </>
  );
}
