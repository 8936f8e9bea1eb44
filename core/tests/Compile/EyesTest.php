<?php

declare(strict_types=1);

use CrispReel\Core\Compile\Accents;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Glances;
use CrispReel\Core\Compile\Utterance;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Tests\Support\Scenes;

/**
 * Two who speak in turn, four lines each of some seconds.
 *
 * @param  array<string, mixed>  $more
 * @param  array<string, mixed>  $oda
 */
function twoWhoTalk(array $more = [], array $oda = []): CompiledScene
{
    $lines = [];
    $words = [
        'We have waited on this bank since the lamps were lit, and nobody has come to fetch us.',
        'The boat was here at noon, with the bell and the flag, and she went without a word to anyone.',
    ];
    foreach (range(0, 7) as $n) {
        $lines[] = ['id' => "l{$n}", 'item' => $n % 2 === 0 ? 'oda' : 'bram', 'text' => $words[$n % 2]] + (
            $n === 0 ? ['start' => 24] : ['after' => 'l'.($n - 1), 'pause' => 0.4]
        );
    }

    return Scenes::compile($more + [
        'items' => [$oda + Scenes::item('oda', 'oda', -0.6, 0.0, 90.0), Scenes::item('bram', 'bram', 0.6, 0.0, -90.0)], 'lines' => $lines,
    ]);
}

/** @return list<float> how much of a shape shows, frame by frame */
function shapeOver(CompiledScene $s, string $who, string $shape, int $from, int $to): array
{
    $figure = $s->lanes[$who]->figure;
    $k = 3 + 4 * $figure->skeleton->count() + (int) array_search($shape, $figure->morphs, true);

    return array_map(static fn (int $f): float => $s->poses->at($f)->row($who)[$k], range($from, $to));
}

/** @return list<int> frames at which lids are shut most */
function shutAt(CompiledScene $s, string $who, int $to): array
{
    $lid = shapeOver($s, $who, 'blinkL', 0, $to);

    return array_values(array_filter(
        range(1, count($lid) - 2), static fn (int $n): bool => $lid[$n] > 0.7 && $lid[$n] >= $lid[$n - 1] && $lid[$n] > $lid[$n + 1],
    ));
}

/**
 * Where on another's face somebody's eyes are to rest, and degrees by which each of them misses it.
 *
 * @return array{array{float, float, float}, float}
 */
function eyesOff(CompiledScene $s, string $who, string $at, int $frame): array
{
    $place = static fn (string $of, string $role): CrispReel\Core\Math\Placement => SceneEvaluator::jointPlace(
        $s, $of, $s->lanes[$of]->figure->skeleton->roles[$role], $frame,
    );
    $point = $s->poses->eyes[$who]->glances?->point($frame / 24) ?? [1.0, 0.0, 0.0];
    $to = V3::mix($place($at, 'eyeL')->position, $place($at, 'eyeR')->position, $point[1] / max(1e-6, $point[0] + $point[1]));
    $most = 0.0;
    foreach (['eyeL', 'eyeR'] as $role) {
        $own = $place($who, $role);
        $figure = $s->lanes[$who]->figure;
        $turn = Q4::mul($own->rotation, Q4::conjugate($figure->restTurn($figure->skeleton->roles[$role])));
        $way = V3::unit(V3::sub($to, $own->position));
        $most = max($most, rad2deg(acos(min(1.0, V3::dot(Q4::rotate($turn, [0.0, 0.0, 1.0]), $way)))));
    }

    return [$point, $most];
}

/** Degrees that eyes are off the face at a moment. */
function offFace(Glances $g, float $t): float
{
    return hypot(...$g->eyes($t));
}

test('who talks and who listens blink eight to twenty times a minute, never in step', function (): void {
    $s = twoWhoTalk();
    $minutes = $s->frames / 24 / 60;
    [$oda, $bram] = [shutAt($s, 'oda', $s->frames), shutAt($s, 'bram', $s->frames)];
    foreach ([$oda, $bram] as $of) {
        expect(count($of) / $minutes)->toBeBetween(8.0, 20.0);
    }
    $together = array_filter($oda, static fn (int $a): bool => array_filter($bram, static fn (int $b): bool => abs($a - $b) < 2) !== []);
    expect(count($together))->toBeLessThan(count($oda) / 3);
    // Most of them come with the end of a phrase, or with eyes that go to somebody.
    $ends = [];
    foreach ($s->utterances as $u) {
        foreach ($u->line->item === 'oda' ? $u->phrases : [] as [, $to]) {
            $ends[] = $u->frame($to);
        }
    }
    $with = array_filter($oda, static fn (int $f): bool => array_filter(
        $ends, static fn (float $e): bool => $f >= $e - 3 && $f <= $e + 8,
    ) !== []);
    expect(count($with))->toBeGreaterThanOrEqual(3);
});

test('keyed lids are as they are keyed, and one who does not live does not blink', function (): void {
    $keyed = ['expressions' => [[
        'id' => 'x', 'item' => 'oda', 'emotion' => 'none', 'from' => 100, 'to' => 400, 'easeIn' => 0, 'easeOut' => 0,
        'shapes' => ['blinkL' => 0.2, 'blinkR' => 0.2],
    ]]];
    expect(array_unique(array_map(static fn (float $v): float => round($v, 6), shapeOver(twoWhoTalk($keyed), 'oda', 'blinkL', 100, 399))))
        ->toBe([0.2])->and(shutAt(twoWhoTalk([], ['life' => 'off']), 'oda', 600))->toBe([])
        ->and(shutAt(twoWhoTalk([], ['life' => 'off']), 'bram', 600))->not->toBe([]);
});

test('lids go down with eyes that look down, and up with eyes that look up', function (): void {
    $look = static fn (float $y): CompiledScene => Scenes::compile([
        'items' => [['life' => 'off'] + Scenes::item('oda', 'oda')],
        'contacts' => [['id' => 'k', 'item' => 'oda', 'effector' => 'look', 'offset' => [0.0, $y, 1.0], 'from' => 0]],
    ]);
    $at = static fn (float $y, string $shape): float => shapeOver($look($y), 'oda', $shape, 20, 20)[0];
    expect($at(-0.2, 'blinkL'))->toBeBetween(0.15, 0.5)->and($at(0.6, 'blinkR'))->toBeLessThan($at(-0.2, 'blinkL'))
        ->and($at(-0.2, 'wideL'))->toBe(0.0)->and($at(3.5, 'wideL'))->toBeBetween(0.15, 0.5)->and($at(3.5, 'blinkL'))->toBe(0.0);
});

test('eyes that meet rest within two degrees of an eye, now on this one and now on that', function (): void {
    $s = twoWhoTalk();
    $seen = $rests = [];
    foreach (range(40, $s->frames - 60) as $f) {
        foreach ([['oda', 'bram'], ['bram', 'oda']] as [$who, $at]) {
            $glances = $s->poses->eyes[$who]->glances;
            [$point, $miss] = eyesOff($s, $who, $at, $f);
            $rests[$who][] = array_search(max($point), $point, true);
            if ($point[2] === 0.0 && max($point) === 1.0 && $glances !== null && offFace($glances, $f / 24) < 1e-3) {
                $seen[] = $miss;
            }
        }
    }
    expect(count($seen))->toBeGreaterThan(600)->and(max($seen))->toBeLessThan(2.0);
    foreach ($rests as $of) {
        $share = array_count_values($of);
        expect($share[0] / count($of))->toBeBetween(0.2, 0.65)->and($share[1] / count($of))->toBeBetween(0.2, 0.65)
            ->and($share[2] / count($of))->toBeBetween(0.02, 0.35);
    }
});

test('who begins a long line looks elsewhere at first and is back before it ends; who listens leaves for a moment', function (): void {
    $s = twoWhoTalk();
    $u = $s->utterances[2];
    expect($u)->toBeInstanceOf(Utterance::class)->and($u->line->item)->toBe('oda');
    $oda = $s->poses->eyes['oda']->glances;
    $bram = $s->poses->eyes['bram']->glances;
    [$from, $to] = [$u->from / 24, $u->to / 24];
    expect($oda)->not->toBeNull()->and($bram)->not->toBeNull();
    expect(offFace($oda, $from + 0.2))->toBeBetween(8.0, 20.0)->and(offFace($oda, $from - 0.4))->toBe(0.0);
    foreach (range(0, 24) as $n) {
        expect(offFace($oda, $to - $n / 24))->toBeLessThan(1e-6);
    }
    // Eyes are there within two frames; the head comes after and goes a third of the way.
    $begins = array_values(array_filter($oda->spans(), static fn (array $g): bool => abs($g[0] - ($from - 0.25)) < 1e-6))[0][0];
    expect(offFace($oda, $begins + 2 / 24))->toEqualWithDelta(offFace($oda, $from + 0.2), 1e-6)
        ->and(hypot(...$oda->head($begins + 2 / 24)))->toBeLessThan(0.1)
        ->and(hypot(...$oda->head($from + 0.35)))->toBeBetween(0.2 * offFace($oda, $from + 0.2), 0.34 * offFace($oda, $from + 0.2));
    // Within all she says he is elsewhere for less than a tenth of the time.
    $away = array_filter(range(0, $s->frames), static fn (int $f): bool => offFace($bram, $f / 24) > 1.0);
    $says = array_filter($away, static fn (int $f): bool => array_filter(
        $s->utterances, static fn (Utterance $u): bool => $u->line->item === 'bram' && $f > $u->from - 12 && $f < $u->to,
    ) !== []);
    expect(count($away) - count($says))->toBeLessThan($s->frames / 20)->and(count($says))->toBeGreaterThan(24);
});

test('a short answer is given straight to the face', function (): void {
    $short = Scenes::compile([
        'items' => [Scenes::item('oda', 'oda', -0.6, 0.0, 90.0), Scenes::item('bram', 'bram', 0.6, 0.0, -90.0)],
        'lines' => [['id' => 'a', 'item' => 'oda', 'text' => 'Has he gone?', 'start' => 10]],
    ]);
    expect($short->poses->eyes['oda']->glances?->spans())->toBe([])->and($short->poses->eyes['bram']->glances?->spans())->toBe([]);
});

test('who listens shows it at least once in four seconds, and nods at the end', function (): void {
    $long = 'We went over the hill and down to the water and along the wall and past the mill and up the lane and round the yard and in.';
    $s = Scenes::compile([
        'items' => [Scenes::item('oda', 'oda', -0.6, 0.0, 90.0), Scenes::item('bram', 'bram', 0.6, 0.0, -90.0)],
        'lines' => [
            ['id' => 'a', 'item' => 'oda', 'text' => $long, 'start' => 10],
            ['id' => 'b', 'item' => 'bram', 'text' => 'No. Yes. Well, no.', 'after' => 'a'],
        ],
    ]);
    foreach (range(1, 30) as $seed) {
        $accents = new Accents($seed);
        [$u, $short] = $s->utterances;
        $at = [$u->spoken[0], ...array_column($accents->answers($u), 0)];
        expect(count($u->phrases))->toBe(1)->and($u->spoken[1] - $u->spoken[0])->toBeGreaterThan(6.0);
        foreach (range(1, count($at) - 1) as $n) {
            expect($at[$n] - $at[$n - 1])->toBeBetween(0.8, 4.0);
        }
        expect($u->spoken[1] - $at[count($at) - 1])->toBeLessThan(4.0);
        $last = array_column($accents->answers($short), 0);
        foreach (range(1, count($last) - 1) as $n) {
            expect($last[$n] - $last[$n - 1])->toBeGreaterThanOrEqual(0.8);
        }
    }
});
