import { createEvent, fireEvent, screen } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../api/client';
import { show } from '../test/render';
import { CROWD, crowdX, crowdY } from './crowd';
import { CrowdPicture } from './CrowdPicture';

const view = {
  words: ['Two vehicles stand in the window.'],
  atDistance: 1,
  atAge: 0,
  marks: {
    vehicleId: [5, 6],
    registration: ['SKR 5', 'SKR 6'],
    age: [500, 200],
    distance: [1020, 300],
    ageToday: [450, 150],
    distanceToday: [980, 280],
    interference: [1, 0],
    crossing: [1, 0],
    wall: [0, 0],
  },
} as Schemas['AheadView'];

function picture() {
  const onBox = vi.fn();
  show(
    <Routes>
      <Route path="/" element={<CrowdPicture view={view} onBox={onBox} />} />
      <Route path="/vehicles/:id" element={<p>a dossier</p>} />
    </Routes>,
  );
  const canvas = screen.getByRole('img');
  canvas.getBoundingClientRect = () =>
    ({ left: 0, top: 0, width: CROWD.width, height: CROWD.height }) as DOMRect;
  canvas.setPointerCapture = () => undefined;
  const at = (type: 'pointerDown' | 'pointerMove' | 'pointerUp', x: number, y: number) => {
    const event = createEvent[type](canvas);
    Object.defineProperties(event, { clientX: { value: x }, clientY: { value: y } });
    fireEvent(canvas, event);
  };
  return { onBox, at };
}

describe('the crowd on its canvas', () => {
  it('chooses a part of the window by dragging, in shares of the limits', () => {
    const { onBox, at } = picture();
    at('pointerDown', crowdX(0.9), crowdY(0.2));
    at('pointerMove', crowdX(0.4), crowdY(0.7));
    at('pointerUp', crowdX(0.4), crowdY(0.7));
    const box = onBox.mock.lastCall![0] as Record<string, number>;
    expect(box.ageFrom).toBeCloseTo(0.4);
    expect(box.ageTo).toBeCloseTo(0.9);
    expect(box.distanceFrom).toBeCloseTo(0.2);
    expect(box.distanceTo).toBeCloseTo(0.7);
  });

  it('takes in whatever lies beyond where the drag ends at the edge', () => {
    const { onBox, at } = picture();
    at('pointerDown', crowdX(0), crowdY(0));
    at('pointerMove', crowdX(1.25), crowdY(1.25));
    at('pointerUp', crowdX(1.25), crowdY(1.25));
    const box = onBox.mock.lastCall![0] as Record<string, number>;
    expect(box.ageTo).toBeGreaterThan(100);
    expect(box.distanceTo).toBeGreaterThan(100);
  });

  it('opens the vehicle that is touched, and lets go of the box where none is', () => {
    const { onBox, at } = picture();
    at('pointerDown', crowdX(0.8), crowdY(0.1));
    at('pointerUp', crowdX(0.8), crowdY(0.1));
    expect(onBox).toHaveBeenCalledWith(undefined);
    at('pointerDown', crowdX(0.2), crowdY(0.3));
    at('pointerUp', crowdX(0.2), crowdY(0.3));
    expect(screen.getByText('a dossier')).toBeTruthy();
  });

  it('names the vehicle under the pointer and counts at the walls', () => {
    const { at } = picture();
    expect(screen.getByText('1 by distance')).toBeTruthy();
    at('pointerMove', crowdX(0.2), crowdY(0.3));
    expect(screen.getByText('SKR 6')).toBeTruthy();
    at('pointerMove', crowdX(0.8), crowdY(0.8));
    expect(screen.queryByText('SKR 6')).toBeNull();
  });
});
