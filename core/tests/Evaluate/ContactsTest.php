<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\UnableToCompile;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\Scenes;

/**
 * @param  array<string, mixed>  $more
 * @return array<string, mixed>
 */
function contact(string $id, string $item, string $effector, array $more = []): array
{
    return $more + ['id' => $id, 'item' => $item, 'effector' => $effector, 'from' => 20, 'to' => 60];
}

/** The place of a hand that touches, in the scene. @return array{float, float, float} */
function palm(CompiledScene $s, string $item, string $side, float $frame): array
{
    $figure = $s->lanes[$item]->figure;

    return SceneEvaluator::jointPlace($s, $item, $figure->skeleton->roles['hand'.$side], $frame)->point($figure->grip($side)[0]);
}

/** @return array{float, float, float} */
function spot(CompiledScene $s, string $item, string $role, float $frame): array
{
    return SceneEvaluator::jointPlace($s, $item, $s->lanes[$item]->figure->skeleton->roles[$role], $frame)->position;
}

/** Oda stands at the origin, idle; more parts by name. @param  array<string, mixed>  $parts */
function held(array $parts, float $headingDeg = 0.0): CompiledScene
{
    return Scenes::compile($parts + [
        'items' => [Scenes::item('o', 'oda', headingDeg: $headingDeg)], 'beats' => [Scenes::beat('b', 'o', 'idle', 0)],
    ]);
}

test('a hand is on its point from the first frame to the last, and nowhere else before and after the ease', function (string $turn): void {
    $free = held([]);
    $s = held(['contacts' => [contact('c', 'o', 'handR', [
        'offset' => [-0.25, 1.15, 0.32], 'easeIn' => 6, 'easeOut' => 10, 'turn' => $turn,
    ])]]);
    foreach ([20, 33, 47, 59] as $f) {
        expect(V3::distance(palm($s, 'o', 'R', $f), [-0.25, 1.15, 0.32]))->toBeLessThan(0.0001);
    }
    foreach ([0, 13, 14, 70, 80] as $f) {
        expect(SceneEvaluator::row($s, 'o', $f))->toBe(SceneEvaluator::row($free, 'o', $f));
    }
    // On the way there it moves from frame to frame without a jump.
    for ($f = 13; $f < 71; $f++) {
        expect(V3::distance(palm($s, 'o', 'R', $f), palm($s, 'o', 'R', $f + 1)))->toBeLessThan(0.16);
    }
    expect($s->notes)->toBe([]);
})->with(['keep', 'follow', 'match']);

test('a matched hand takes the turn of its target', function (): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda'), Scenes::item('s', 'stool', -0.3, 0.42, 30.0, 0.3)],
        'beats' => [Scenes::beat('b', 'o', 'idle', 0)],
        'contacts' => [contact('c', 'o', 'handR', ['target' => 's', 'mount' => 'top', 'turn' => 'match'])],
    ]);
    $figure = $s->lanes['o']->figure;
    $hand = SceneEvaluator::jointPlace($s, 'o', $figure->skeleton->roles['handR'], 40);
    $grip = Q4::mul($hand->rotation, $figure->grip('R')[1]);
    expect(rad2deg(Q4::angleBetween($grip, Q4::aroundY(deg2rad(30)))))->toBeLessThan(0.01)
        ->and(V3::distance(palm($s, 'o', 'R', 40), [-0.3, 0.8, 0.42]))->toBeLessThan(0.0001);
});

test('where the arm is too short the trunk leans; where that is not enough the rest is told', function (): void {
    $near = held(['contacts' => [contact('c', 'o', 'handR', ['offset' => [-0.2, 1.0, 0.72]])]]);
    expect(V3::distance(palm($near, 'o', 'R', 40), [-0.2, 1.0, 0.72]))->toBeLessThan(0.0001)
        ->and(spot($near, 'o', 'upperChest', 40)[2])->toBeGreaterThan(spot(held([]), 'o', 'upperChest', 40)[2] + 0.03);
    $far = held(['contacts' => [contact('c', 'o', 'handR', ['offset' => [-0.2, 1.2, 3.0], 'turn' => 'keep'])]]);
    $missing = ($far->poses->at(40));
    $missing->row('o');
    expect($missing->missing['c'])->toEqualWithDelta(V3::distance(palm($far, 'o', 'R', 40), [-0.2, 1.2, 3.0]), 0.002)
        ->and($far->notes)->toHaveCount(1)->and($far->notes[0]->code)->toBe('contact.reach')->and($far->notes[0]->sentence)
        ->toContain('right hand of o');
});

test('the hips sit down and the feet stay', function (): void {
    $free = held([]);
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda'), Scenes::item('s', 'stool', 0.0, -0.22)], 'beats' => [Scenes::beat('b', 'o', 'idle', 0)],
        'contacts' => [contact('c', 'o', 'hips', ['target' => 's', 'mount' => 'top'])],
    ]);
    $hips = spot($s, 'o', 'hips', 40);
    expect($hips[2])->toEqualWithDelta(-0.22, 1e-6)->and($hips[1])->toBeBetween(0.58, 0.63);
    foreach (['footL', 'footR'] as $foot) {
        expect(V3::distance(spot($s, 'o', $foot, 40), spot($free, 'o', $foot, 40)))->toBeLessThan(0.0001);
    }
    foreach (['L', 'R'] as $side) {
        // Knees go forward and up, not sideways through each other.
        $knee = spot($s, 'o', 'lowerLeg'.$side, 40);
        expect($knee[2])->toBeGreaterThan($hips[2] + 0.1)->and(abs($knee[0]))->toBeLessThan(0.25);
    }
});

test('a foot stands on a box, with the sole on top', function (): void {
    $s = held(['contacts' => [contact('c', 'o', 'footL', ['offset' => [0.12, 0.3, 0.25], 'turn' => 'keep'])]]);
    $rest = $s->lanes['o']->figure->rest('footL');
    expect(spot($s, 'o', 'footL', 40)[1])->toEqualWithDelta(0.3 + $rest[1], 0.0005);
});

test('two hands carry one thing: the second follows what the first holds', function (): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda'), Scenes::item('k', 'box', 0.0, 0.3, 0.0, 0.9, 0.3)],
        'beats' => [Scenes::beat('b', 'o', 'idle', 0)],
        'links' => [['id' => 'l', 'child' => 'k', 'parent' => 'o', 'mount' => 'handR', 'from' => 0]],
        'contacts' => [
            contact('r', 'o', 'handR', ['offset' => [-0.12, 1.0, 0.3], 'from' => 0, 'to' => 100, 'easeIn' => 0]),
            contact('c', 'o', 'handL', ['target' => 'k', 'offset' => [0.1, 0.5, 0.0], 'turn' => 'keep']),
        ],
    ]);
    foreach ([20, 40, 59] as $f) {
        $on = SceneEvaluator::place($s, 'k', $f)->point([0.1, 0.5, 0.0]);
        expect(V3::distance(palm($s, 'o', 'L', $f), $on))->toBeLessThan(0.0005);
    }
});

test('hand in hand: the palms meet while one of them walks', function (): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda'), Scenes::item('b', 'bram', 0.7, 0.0)],
        'beats' => [Scenes::beat('1', 'o', 'idle', 0), Scenes::beat('2', 'b', 'idle', 0)],
        'contacts' => [contact('c', 'o', 'handL', ['target' => 'b', 'mount' => 'handR', 'turn' => 'follow'])],
    ]);
    foreach ([20, 40, 59] as $f) {
        expect(V3::distance(palm($s, 'o', 'L', $f), palm($s, 'b', 'R', $f)))->toBeLessThan(0.002);
    }
    expect(array_search('b', $s->order, true))->toBeLessThan(array_search('o', $s->order, true));
});

test('a look turns head and eyes to its target', function (): void {
    $s = held(['contacts' => [contact('c', 'o', 'look', ['offset' => [1.5, 1.2, 1.5]])]]);
    $figure = $s->lanes['o']->figure;
    $eye = SceneEvaluator::jointPlace($s, 'o', $figure->skeleton->roles['eyeL'], 40);
    $ahead = Q4::rotate(Q4::mul($eye->rotation, Q4::conjugate($figure->restTurn($figure->skeleton->roles['eyeL']))), [0.0, 0.0, 1.0]);
    $to = V3::unit(V3::sub([1.5, 1.2, 1.5], $eye->position));
    expect(rad2deg(acos(min(1.0, V3::dot($ahead, $to)))))->toBeLessThan(1.0);
});

test('the brow leans against a wall', function (): void {
    $s = held(['contacts' => [contact('c', 'o', 'head', ['offset' => [0.0, 1.40, 0.32]])]]);
    expect(SceneEvaluator::at($s, 40)->missing['c'])->toBeLessThan(0.01);
});

test('performers that hold on to each other in a circle are named', function (): void {
    Scenes::compile([
        'items' => [Scenes::item('o', 'oda'), Scenes::item('b', 'bram', 0.7)], 'beats' => [],
        'contacts' => [
            contact('1', 'o', 'handL', ['target' => 'b', 'mount' => 'handR']),
            contact('2', 'b', 'handR', ['target' => 'o', 'mount' => 'handL', 'from' => 40, 'to' => 80]),
        ],
    ]);
})->throws(UnableToCompile::class, 'o > b > o');

test('the same at other times is no circle', function (): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda'), Scenes::item('b', 'bram', 0.6)], 'beats' => [],
        'contacts' => [
            contact('1', 'o', 'handL', ['target' => 'b', 'mount' => 'handR']),
            contact('2', 'b', 'handR', ['target' => 'o', 'mount' => 'handL', 'from' => 80, 'to' => 90]),
        ],
    ]);
    expect(V3::distance(palm($s, 'o', 'L', 30), palm($s, 'b', 'R', 30)))->toBeLessThan(0.005)
        ->and(V3::distance(palm($s, 'o', 'L', 85), palm($s, 'b', 'R', 85)))->toBeLessThan(0.005);
});

test('a hand cannot hold the thing that it carries', function (): void {
    Scenes::compile([
        'items' => [Scenes::item('o', 'oda'), Scenes::item('k', 'key')],
        'links' => [['id' => 'l', 'child' => 'k', 'parent' => 'o', 'mount' => 'handR', 'from' => 0]],
        'contacts' => [contact('1', 'o', 'handR', ['target' => 'k'])],
    ]);
})->throws(UnableToCompile::class, 'circle');

test('contacts of things without joints, and of mounts that are not there, are refused', function (array $c, string $message): void {
    expect(fn () => Scenes::compile(['items' => [Scenes::item('o', 'oda'), Scenes::item('k', 'key')], 'contacts' => [$c]]))
        ->toThrow(UnableToCompile::class, $message);
})->with([
    [contact('1', 'k', 'handR', ['target' => 'o']), 'no human joints'],
    [contact('1', 'o', 'handR', ['target' => 'k', 'mount' => 'lid']), 'no joint or mount called "lid"'],
]);

test('a touch-up turns its joint by its keys and fades at both ends', function (): void {
    $turn = static fn (float $deg): array => Q4::aroundX(deg2rad($deg));
    $s = held(['touchUps' => [[
        'id' => 't',
        'item' => 'o',
        'joint' => 'head',
        'from' => 20,
        'to' => 60,
        'easeIn' => 4,
        'easeOut' => 10,
        'keys' => [['frame' => 20, 'rotation' => $turn(10)], ['frame' => 40, 'rotation' => $turn(30)]],
    ]]]);
    $free = held([]);
    $j = $s->lanes['o']->figure->skeleton->roles['head'];
    $by = static fn (float $f): float => rad2deg(Q4::angleBetween(
        array_slice(SceneEvaluator::row($free, 'o', $f), 3 + 4 * $j, 4),
        array_slice(SceneEvaluator::row($s, 'o', $f), 3 + 4 * $j, 4),
    ));
    expect($by(16))->toEqualWithDelta(0.0, 1e-6)->and($by(18))->toEqualWithDelta(5.0, 0.01)->and($by(20))->toEqualWithDelta(10.0, 0.01)
        ->and($by(30))->toEqualWithDelta(20.0, 0.01)->and($by(59))->toEqualWithDelta(30.0, 0.01)->and($by(65))->toEqualWithDelta(15.0, 0.01)
        ->and($by(70))->toEqualWithDelta(0.0, 1e-6);
});

test('a touch-up of the hips shifts the whole performer; an unknown joint is named', function (): void {
    $of = static fn (string $joint): array => ['touchUps' => [[
        'id' => 't', 'item' => 'o', 'joint' => $joint, 'from' => 0, 'easeIn' => 0,
        'keys' => [['frame' => 0, 'shift' => [0.1, -0.05, 0.0]]],
    ]]];
    expect(V3::distance(spot(held($of('hips')), 'o', 'footL', 10), V3::add(spot(held([]), 'o', 'footL', 10), [0.1, -0.05, 0.0])))
        ->toBeLessThan(1e-9);
    expect(fn () => held($of('tail')))->toThrow(UnableToCompile::class, '"tail"');
});

test('any order of frames gives the same bits, contacts and touch-ups on', function (): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'oda'), Scenes::item('b', 'bram', 0.7, 0.1)],
        'beats' => [Scenes::beat('1', 'o', 'talk', 0), Scenes::beat('2', 'b', 'wave', 0, ['play' => ['mirror' => true]])],
        'touchUps' => [[
            'id' => 't', 'item' => 'b', 'joint' => 'spine', 'from' => 10, 'to' => 50,
            'keys' => [['frame' => 10, 'rotation' => Q4::aroundZ(0.2)]],
        ]],
        'contacts' => [contact('c', 'o', 'handL', ['target' => 'b', 'mount' => 'handR'])],
    ]);
    $forward = array_map(static fn (int $f): string => serialize(SceneEvaluator::at($s, $f)), range(0, 70));
    foreach ([44, 3, 70, 21, 20, 59, 0] as $f) {
        expect(serialize(SceneEvaluator::at($s, $f)))->toBe($forward[$f]);
    }
});

test('for what is a little too far girdle and hips go along before the trunk leans', function (array $at, float $most): void {
    foreach (['oda', 'bram'] as $who) {
        $s = Scenes::compile(['items' => [Scenes::item('o', $who)], 'contacts' => [[
            'id' => 'c', 'item' => 'o', 'effector' => 'handR', 'offset' => $at, 'from' => 10, 'to' => 60, 'easeIn' => 5, 'easeOut' => 5,
        ]]]);
        $f = $s->lanes['o']->figure;
        $turn = static fn (float $frame): array => $f->skeleton->jointIn(
            SceneEvaluator::row($s, 'o', $frame), $f->hips, $f->skeleton->roles['upperChest'],
        )[1];
        expect(rad2deg(Q4::angleBetween($turn(0), $turn(30))))->toBeLessThan($most, $who)->and($s->notes)->toBe([]);
        // The feet stay.
        foreach (['footL', 'footR'] as $role) {
            $foot = static fn (float $frame): array => SceneEvaluator::jointPlace($s, 'o', $f->skeleton->roles[$role], $frame)->position;
            expect(V3::distance($foot(0), $foot(30)))->toBeLessThan(0.004);
        }
    }
})->with([
    [[0.0, 1.03, 0.5], 20.0], [[0.0, 1.03, 0.65], 20.0], [[-0.2, 0.9, 0.6], 20.0], [[0.1, 1.5, 0.6], 20.0], [[-0.1, 0.75, 0.5], 30.0],
]);
