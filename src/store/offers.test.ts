import { accept, offer } from './offers';

const idOf = (does: () => void): string => {
  const action = offer(does);
  if (action.kind !== 'offer') throw new Error('no offer');
  return action.id;
};

test('what is offered is done once, and only when it is wished', () => {
  const [one, other] = [jest.fn(), jest.fn()];
  const [first, second] = [idOf(one), idOf(other)];
  expect(one).not.toHaveBeenCalled();
  accept(first);
  accept(first);
  accept('nothing');
  expect(one).toHaveBeenCalledTimes(1);
  expect(other).not.toHaveBeenCalled();
  accept(second);
  expect(other).toHaveBeenCalledTimes(1);
});

test('an offer of long ago is gone; those of late are there', () => {
  const does = Array.from({ length: 25 }, () => jest.fn());
  const ids = does.map(idOf);
  ids.forEach(accept);
  expect(does.map((one) => one.mock.calls.length)).toEqual(does.map((_, at) => (at < 5 ? 0 : 1)));
});
