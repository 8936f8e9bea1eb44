<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\SceneCompiler;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Angle;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Staging\Ride;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/**
 * A scene after somebody has been put on a thing by one command.
 *
 * @param  list<array<string, mixed>>  $items  performer "o" and thing "t" among them
 * @param  list<array<string, mixed>>  $beats  that follow
 */
function mounted(array $items, int $from, ?int $to, bool $getsOn = true, array $beats = []): CompiledScene
{
    $assets = new FakeAssets;
    $data = Scenes::data(['items' => $items]);
    $commands = Ride::of(SceneCompiler::compile(Document::fromArray($data), $assets), $assets, 'o', 't', $from, $to, $getsOn);
    foreach ($commands as $k => $command) {
        $in = $command->payload;
        if ($command->name === 'beat.add') {
            $in['motion'] = 'm-'.lcfirst(str_replace(' ', '', ucwords(str_replace('-', ' ', $in['motion']))));
            $data['beats'][] = ['id' => "b{$k}"] + $in;
        } elseif ($command->name === 'contact.add') {
            $data['contacts'][] = ['id' => "k{$k}"] + $in;
        } else {
            foreach ($data['items'] as &$item) {
                if ($item['id'] === $in['item']) {
                    $item['route'] = array_diff_key($in, ['item' => 0]) + $item['route'];
                }
            }
            unset($item);
        }
    }

    array_push($data['beats'], ...$beats);

    return SceneCompiler::compile(Document::fromArray($data), $assets);
}

/** @return array{float, float, float} */
function riderAt(CompiledScene $s, string $role, float $frame): array
{
    return SceneEvaluator::jointPlace($s, 'o', $s->lanes['o']->figure->skeleton->roles[$role], $frame)->position;
}

/** @return array<string, list<float>> start and end of each motion on the thing, by its way */
function ways(CompiledScene $s): array
{
    $out = [];
    foreach ($s->lanes['o']->segments as $segment) {
        $motion = substr($segment->from->motion, 2);
        $out[$segment->isBetween() ? 'walks' : $motion] = [$segment->start, $segment->end];
    }

    return $out;
}

function onBicycle(string $who = 'bram', ?int $to = 330): CompiledScene
{
    return mounted([
        ['route' => ['points' => [[-5.0, 1.4]], 'speed' => 2.0]] + Scenes::item('t', 'bicycle', 2.0, 1.5, -90.0),
        Scenes::item('o', $who, 3.6, 3.6, -90.0),
    ], 10, $to);
}

test('the rider stands where it stood, walks up, gets on, rides and gets off beside it', function (string $who): void {
    $s = onBicycle($who);
    $ways = ways($s);
    expect(array_keys($ways))->toBe(['walks', 'getOn', 'ride', 'waitOn', 'getOff']);
    expect(riderAt($s, 'hips', 0))->toEqualWithDelta([3.6, riderAt($s, 'hips', 0)[1], 3.6], 0.05);
    // Thirty to forty-five frames from the stand beside it until it is sat on.
    expect($ways['getOn'][1] - $ways['getOn'][0])->toBeBetween(30.0, 60.0);
    $rolling = (int) (($ways['ride'][0] + $ways['ride'][1]) / 2);
    $seat = SceneEvaluator::place($s, 't', $rolling)->point([0.0, 0.80, -0.24]);
    $hips = riderAt($s, 'hips', $rolling);
    expect(hypot($hips[0] - $seat[0], $hips[2] - $seat[2]))->toBeLessThan(0.02)->and($hips[1] - $seat[1])->toBeBetween(0.07, 0.13);
    // As the thing faces, not backwards.
    $figure = $s->lanes['o']->figure;
    $turn = Q4::heading(Q4::mul(
        SceneEvaluator::jointPlace($s, 'o', $figure->hips, $rolling)->rotation, Q4::conjugate($figure->restTurn($figure->hips)),
    ));
    $faces = Q4::heading(SceneEvaluator::place($s, 't', $rolling)->rotation);
    expect(abs(rad2deg(Angle::wrapped($turn - $faces))))->toBeLessThan(5.0);
    $end = riderAt($s, 'hips', $ways['getOff'][1]);
    $thing = SceneEvaluator::place($s, 't', $ways['getOff'][1])->inverse()->point($end);
    expect(abs($thing[0]))->toBeBetween(0.25, 0.5)->and(abs($thing[2]))->toBeLessThan(0.4);
})->with(['bram', 'oda']);

test('hips, hands and feet neither jump nor slide while one gets on, sets off, brakes and gets off', function (): void {
    $s = onBicycle();
    $ways = ways($s);
    $before = null;
    for ($f = $ways['getOn'][0]; $f < $ways['getOff'][1]; $f++) {
        $thing = SceneEvaluator::place($s, 't', $f);
        $now = [];
        foreach (['hips' => 0.06, 'footL' => 0.18, 'footR' => 0.18, 'handL' => 0.12, 'handR' => 0.12] as $role => $most) {
            $now[$role] = $thing->inverse()->point(riderAt($s, $role, $f));
            if ($before !== null) {
                expect(V3::distance($now[$role], $before[$role]))->toBeLessThan($most, "{$role} at {$f}");
            }
        }
        $before = $now;
    }
    // While it stands a foot is on the ground, and stays where it is.
    $low = $s->lanes['o']->figure->rest('footL')[1];
    $standing = range((int) $ways['getOn'][1] - 10, (int) $ways['ride'][0] - 3);
    foreach ($standing as $f) {
        expect(min(riderAt($s, 'footL', $f)[1], riderAt($s, 'footR', $f)[1]))->toEqualWithDelta($low, 0.012);
    }
});

test('after the ride a walk begins where one got off, and goes to where it was drawn', function (): void {
    $off = 160;
    $s = mounted([
        ['route' => ['points' => [[0.0, 6.0]], 'to' => 96]] + Scenes::item('t', 'bicycle'), Scenes::item('o', 'bram', 2.0, 0.0, -90.0),
    ], 0, 100, false, [Scenes::beat('away', 'o', 'walk', $off, ['path' => ['points' => [[3.0, 8.0]]]])]);
    $walk = $s->lanes['o']->segments[count($s->lanes['o']->segments) - 1];
    $start = riderAt($s, 'hips', $off);
    expect(V3::distance($start, riderAt($s, 'hips', $off + 1)))->toBeLessThan(0.06)->and($start[2])->toBeGreaterThan(4.0);
    $end = riderAt($s, 'hips', $walk->end);
    expect([$end[0], $end[2]])->toEqualWithDelta([3.0, 8.0], 0.06);
});

test('a boat is boarded over its side from the nearer bank, and left again', function (): void {
    $s = mounted([Scenes::item('t', 'boat', 0.0, 0.0, 0.0, -0.1), Scenes::item('o', 'bram', 2.2, 0.6, -90.0)], 6, 200);
    $ways = ways($s);
    $seat = SceneEvaluator::place($s, 't', 190)->point([0.0, 0.16, 0.36]);
    $hips = riderAt($s, 'hips', 190);
    expect(hypot($hips[0] - $seat[0], $hips[2] - $seat[2]))->toBeLessThan(0.05)->and($hips[1] - $seat[1])->toBeBetween(0.05, 0.15);
    // No foot goes through the side of the boat: over the gunwale it is above it.
    for ($f = (int) $ways['getOn'][0]; $f <= $ways['getOn'][1]; $f++) {
        foreach (['footL', 'footR'] as $role) {
            $p = riderAt($s, $role, $f);
            if (abs(abs($p[0]) - 0.6) < 0.06 && abs($p[2]) < 0.9) {
                expect($p[1])->toBeGreaterThan(0.22, "{$role} at {$f}");
            }
        }
    }
    $end = riderAt($s, 'hips', $ways['getOff'][1]);
    expect($end[0])->toBeGreaterThan(0.7)->and(riderAt($s, 'footL', $ways['getOff'][1])[1])->toEqualWithDelta(0.085, 0.02);
});

test('a route that begins at the thing\'s own place does not roll back', function (): void {
    $s = Scenes::compile(['items' => [['route' => ['points' => [[0.0, 0.0], [0.0, 6.0]], 'to' => 96]] + Scenes::item('w', 'bicycle')]]);
    for ($f = 1; $f <= 96; $f++) {
        [$a, $b] = [SceneEvaluator::place($s, 'w', $f - 1), SceneEvaluator::place($s, 'w', $f)];
        expect($b->position[2] - $a->position[2])->toBeGreaterThan(-1e-6, "at {$f}")
            ->and(Q4::rotate($b->rotation, [0.0, 1.0, 0.0])[1])->toBeGreaterThan(0.9999);
    }
});

test('what is got on after it was taken away is got on in its place', function (): void {
    $s = Scenes::compile([
        'items' => [Scenes::item('o', 'bram')], 'beats' => [Scenes::beat('b', 'o', 'getOn', 0, ['play' => ['on' => 'gone']])],
    ]);
    expect(riderAt($s, 'hips', 40)[1])->toBeGreaterThan(0.6)->and($s->notes)->toHaveCount(1)
        ->and($s->notes[0]->code)->toBe('ride.nothing')->and($s->notes[0]->remedy)->toContain('bicycle');
});
