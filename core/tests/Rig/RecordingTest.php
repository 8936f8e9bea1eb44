<?php

declare(strict_types=1);

use CrispReel\Core\Compile\ImportedMotion;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Format\Bvh\BvhMotion;
use CrispReel\Core\Format\Bvh\BvhReader;
use CrispReel\Core\Format\Bvh\BvhWriter;
use CrispReel\Core\Intake\RecordingCheck;
use CrispReel\Core\Kit\Figure\FigureSpec;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\RecordedFeet;
use CrispReel\Core\Rig\Channel;
use CrispReel\Core\Rig\Clip;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Rig\HumanRoles;
use CrispReel\Core\Rig\Interpolation;
use CrispReel\Core\Rig\Recording;
use CrispReel\Core\Rig\Skeleton;
use CrispReel\Core\Rig\Stance;

/** Frames of a public recording, which the tests install; none of it is kept here. */
function recorded(string $name, int $from, int $count): BvhMotion
{
    $lines = file("/usr/share/assimp/models/BVH/{$name}.bvh") ?: throw new RuntimeException('The package assimp-testmodels is missing.');
    $at = (int) array_key_first(preg_grep('/^\s*Frame Time/', $lines) ?: []);
    $lines = [...array_slice($lines, 0, $at + 1), ...array_slice($lines, $at + 1 + $from, $count)];

    return BvhReader::read((string) preg_replace('/^Frames:.*$/m', "Frames: {$count}", implode('', $lines)));
}

/**
 * @param  list<float>  $p
 * @param  array<string, int>  $roles
 * @return array{array{float, float, float}, array{float, float, float}} where the upper and the lower part of a limb point
 */
function limbWays(array $p, array $roles, string $kind, string $side): array
{
    [$a, $b, $c] = array_map(
        static fn (string $r): array => Stance::at($p, $roles[$r.$side]),
        $kind === 'arm' ? ['upperArm', 'lowerArm', 'hand'] : ['upperLeg', 'lowerLeg', 'foot'],
    );

    return [V3::unit(V3::sub($b, $a)), V3::unit(V3::sub($c, $b))];
}

/** @return list<float> places of a figure's joints in a row */
function jointsIn(Figure $f, array $row): array
{
    return $f->skeleton->world(array_slice($row, 3, 4 * $f->skeleton->count()), [$row[0], $row[1], $row[2]], $f->hips)[0];
}

function bentBy(array $two): float
{
    return rad2deg(acos(max(-1.0, min(1.0, V3::dot($two[0], $two[1])))));
}

test('limbs of a recording bend as the source bends them, and feet stand where it plants them', function (string $name, int $from): void {
    $bvh = recorded($name, $from, 300);
    $roles = HumanRoles::chosen($bvh->skeleton);
    $r = Recording::of($bvh->clip, $bvh->skeleton, $roles, $roles['hips']);
    $count = $bvh->clip->samples(60.0);
    $rate = ($count - 1) / $bvh->clip->seconds;
    $feet = RecordedFeet::of($r, $rate, $count);
    $metre = 0.85 / $r->leg();
    foreach (['oda', 'bram', ...array_keys(FigureSpec::house())] as $who) {
        $figure = figure($who);
        $table = ImportedMotion::sampled($bvh->clip, $bvh->skeleton, $figure, $name);
        $planted = [];
        for ($i = 0; $i < $count; $i += 5) {
            [$p] = $r->world($i / $rate);
            $q = jointsIn($figure, $table->row($i));
            foreach (['L', 'R'] as $side) {
                foreach (['arm', 'leg'] as $kind) {
                    $s = limbWays($p, $roles, $kind, $side);
                    $t = limbWays($q, $figure->skeleton->roles, $kind, $side);
                    if (bentBy($s) > 8.0 && bentBy($t) > 8.0) {
                        expect(V3::dot(V3::cross(...$s), V3::cross(...$t)))->toBeGreaterThan(0.0, "{$who} {$kind}{$side} at {$i}");
                    }
                    $low = min(
                        Stance::at($p, $roles['foot'.$side])[1] - $feet->ankle,
                        Stance::at($p, $roles['toes'.$side])[1] - Stance::at($p, $roles['foot'.$side])[1] + 0.09 / $metre,
                    ) * $metre;
                    if ($kind === 'arm' || $low > 0.08) {
                        expect(abs(bentBy($s) - bentBy($t)))->toBeLessThan(2.0, "{$who} {$kind}{$side} at {$i}");
                    }
                }
            }
        }
        foreach ($feet->spans as $role => $spans) {
            $j = $figure->skeleton->roles[$role];
            foreach ($spans as [$a, $b]) {
                // The source's own joints creep while they are planted; what is more than that is ours.
                $far = static function (callable $at) use ($a, $b): float {
                    $all = array_map($at, range($a, $b - 1));

                    return V3::distance(
                        array_map(static fn (int $k): float => min(array_column($all, $k)), [0, 1, 2]),
                        array_map(static fn (int $k): float => max(array_column($all, $k)), [0, 1, 2]),
                    );
                };
                $own = $far(static fn (int $i): array => V3::mul(Stance::at($r->world($i / $rate)[0], $roles[$role]), $metre));
                $ours = $far(static fn (int $i): array => Stance::at(jointsIn($figure, $table->row($i)), $j));
                expect($ours)->toBeLessThan(0.01 + 0.5 * $own, "{$who} {$role} {$a} to {$b}");
                $height = Stance::at(jointsIn($figure, $table->row(intdiv($a + $b, 2))), $j)[1] - ($figure->rest($role)[1] ?? 0.0);
                $heights = array_map(
                    static fn (array $s): float => $metre * Stance::at($r->world(intdiv($s[0] + $s[1], 2) / $rate)[0], $roles[$role])[1],
                    $spans,
                );
                $source = $metre * Stance::at($r->world(intdiv($a + $b, 2) / $rate)[0], $roles[$role])[1] - min($heights);
                expect($height)->toBeGreaterThan(-0.02, "{$who} {$role} {$a}")->toBeLessThan(0.02 + $source, "{$who} {$role} {$a}");
            }
        }
    }
})->with([
    ['01_01', 200], ['01_01', 1200], ['01_03', 0], ['01_03', 2200], ['Boxing_Toes', 0], ['Boxing_Toes', 900],
]);

/** Arms that go up and a body that goes 2 m ahead and turns, keyed at whatever joints carry it. */
function goesAhead(string $how): array
{
    [$s] = named(static fn (string $p, string $side): string => $p.$side);
    $times = [0.0, 1.0, 2.0];
    $turn = [...Q4::IDENTITY, ...Q4::aroundY(0.6), ...Q4::aroundY(1.2)];
    $channels = match ($how) {
        'at the root' => [
            new Channel('root', 'translation', Interpolation::Linear, $times, [0, 0, 0, 0, 0, 1, 0, 0, 2], 3),
            new Channel('root', 'rotation', Interpolation::Linear, $times, $turn, 4),
        ],
        'at the hips' => [
            new Channel('hips', 'translation', Interpolation::Linear, $times, [0, 0.95, 0, 0, 0.95, 1, 0, 0.95, 2], 3),
            new Channel('hips', 'rotation', Interpolation::Linear, $times, $turn, 4),
        ],
        default => [
            new Channel('root', 'translation', Interpolation::Linear, $times, [0, 0, 0, 0, 0, 0.7, 0, 0, 1.4], 3),
            new Channel('root', 'rotation', Interpolation::Linear, $times, $turn, 4),
            new Channel('hips', 'translation', Interpolation::Linear, $times, [
                ...[0, 0.95, 0], ...V3::add([0.0, 0.95, 0.0], Q4::rotate(Q4::aroundY(-0.6), [0.0, 0.0, 0.3])),
                ...V3::add([0.0, 0.95, 0.0], Q4::rotate(Q4::aroundY(-1.2), [0.0, 0.0, 0.6])),
            ], 3),
        ],
    };

    return [$s, new Clip('goes', array_map(static fn (Channel $c): Channel => new Channel(
        $c->target, $c->path, $c->interpolation, $c->times, array_map(floatval(...), $c->values), $c->width,
    ), $channels))];
}

test('travel is whole wherever it is keyed: at the root, at the hips, or part here and part there', function (string $how): void {
    [$s, $clip] = goesAhead($how);
    $oda = figure('oda');
    $table = ImportedMotion::sampled($clip, $s, $oda, 'goes');
    [$first, $last] = [$table->at(0.0), $table->at(2.0)];
    $w = $table->width;
    $roles = HumanRoles::chosen($s);
    $scale = $oda->body()->leg * $oda->body()->scale / Recording::of($clip, $s, $roles, $roles['hips'])->leg();
    expect(hypot($last[$w - 3] - $first[$w - 3], $last[$w - 2] - $first[$w - 2]))->toEqualWithDelta(2.0 * $scale, 0.005)
        ->and($last[$w - 1] - $first[$w - 1])->toEqualWithDelta(1.2, 0.001);
})->with(['at the root', 'at the hips', 'in two parts']);

test('travel leaves as BVH and comes back where hips hang on a root', function (): void {
    [$s] = goesAhead('at the root');
    $n = $s->count();
    $hips = $s->index['hips'];
    $rows = [];
    foreach ([0.0, 0.5, 1.0] as $z) {
        $rows[] = [0.1, 0.95, $z, ...$s->rotations];
    }
    $back = BvhReader::read(BvhWriter::write($s, $hips, $rows, 1 / 30));
    foreach ([0, 1, 2] as $i) {
        $r = Recording::of($back->clip, $back->skeleton, $back->skeleton->roles, $back->skeleton->roles['hips']);
        expect(Stance::at($r->world($i / 30)[0], $back->skeleton->index['hips']))
            ->toEqualWithDelta([10.0, 95.0, 100 * $rows[$i][2]], 1e-3);
    }
    expect($n)->toBe(
        $back->skeleton->count() - count(array_filter($back->skeleton->names, static fn (string $x): bool => str_ends_with($x, ' end'))),
    );
});

/**
 * A walker whose rest pose is changed and whose motion is not.
 *
 * @param  callable(string, array{float, float, float, float}): array{float, float, float, float}  $rest  role and rest turn to another one
 */
function restingAs(callable $rest, string $text): BvhMotion
{
    $bvh = BvhReader::read($text);
    $s = $bvh->skeleton;
    $turns = [];
    foreach ($s->names as $j => $name) {
        $role = array_search($j, $s->roles, true);
        array_push($turns, ...$rest($role === false ? '' : $role, $s->restRotation($j)));
    }

    return new BvhMotion(
        new Skeleton($s->names, $s->parents, $s->translations, $turns, $s->scales, $s->roles),
        $bvh->clip,
        $bvh->frames,
        $bvh->frameSeconds,
        [],
    );
}

test('whatever its rest pose, a motion looks the same', function (callable $rest): void {
    $plain = BvhReader::read(walkAsBvh());
    $other = restingAs($rest, walkAsBvh());
    $bram = figure('bram');
    $a = ImportedMotion::sampled($plain->clip, $plain->skeleton, $bram, 'walk');
    $b = ImportedMotion::sampled($other->clip, $other->skeleton, $bram, 'walk');
    for ($t = 0.0; $t < 2.4; $t += 0.2) {
        [$p, $q] = [jointsIn($bram, $a->at($t)), jointsIn($bram, $b->at($t))];
        foreach (['L', 'R'] as $side) {
            foreach (['arm', 'leg'] as $kind) {
                [$u, $v] = [limbWays($p, $bram->skeleton->roles, $kind, $side), limbWays($q, $bram->skeleton->roles, $kind, $side)];
                expect(rad2deg(acos(min(1.0, V3::dot($u[0], $v[0])))))->toBeLessThan(4.0)
                    ->and(rad2deg(acos(min(1.0, V3::dot($u[1], $v[1])))))->toBeLessThan(4.0);
            }
            $flat = V3::sub(Stance::at($q, $bram->skeleton->roles['toes'.$side]), Stance::at($q, $bram->skeleton->roles['foot'.$side]));
            $was = V3::sub(Stance::at($p, $bram->skeleton->roles['toes'.$side]), Stance::at($p, $bram->skeleton->roles['foot'.$side]));
            expect(rad2deg(acos(min(1.0, V3::dot(V3::unit($flat), V3::unit($was))))))->toBeLessThan(8.0);
        }
    }
})->with([
    'arms down' => [static fn (string $r, array $q): array => match ($r) {
        'upperArmL' => Q4::mul(Q4::aroundZ(-0.5), $q), 'upperArmR' => Q4::mul(Q4::aroundZ(0.5), $q), default => $q,
    }],
    'arms ahead' => [static fn (string $r, array $q): array => match ($r) {
        'upperArmL', 'upperArmR' => Q4::mul(Q4::aroundX(-1.3), $q), default => $q,
    }],
    'one leg ahead' => [static fn (string $r, array $q): array => match ($r) {
        'upperLegL' => Q4::mul(Q4::aroundX(-0.4), $q), 'upperLegR' => Q4::mul(Q4::aroundX(0.3), $q), default => $q,
    }],
    'a heap of bones' => [static fn (string $r, array $q): array => match ($r) {
        'upperLegL', 'upperLegR' => Q4::mul(
            Q4::aroundX(-1.7), $q,
        ), 'spine' => Q4::mul(Q4::aroundX(1.2), $q), 'lowerLegL' => Q4::aroundX(1.5),
        default => $q,
    }],
]);

test('a first frame for measuring is left out, a rest that is no stand is told', function (): void {
    $bvh = recorded('01_03', 0, 60);
    $roles = HumanRoles::chosen($bvh->skeleton);
    $r = Recording::of($bvh->clip, $bvh->skeleton, $roles, $roles['hips']);
    expect($r->begins)->toEqualWithDelta(1 / 120, 1e-4)->and($r->restAt)->toBeNull();
    $heap = restingAs(static fn (string $role, array $q): array => $role === 'upperLegL' ? Q4::aroundX(-2.0) : $q, walkAsBvh());
    $r = Recording::of($heap->clip, $heap->skeleton, $heap->skeleton->roles, $heap->skeleton->roles['hips']);
    expect($r->restAt)->not->toBeNull()->and($r->begins)->toBe(0.0);
});

/** A walk whose ground is so many centimetres above zero. */
function raisedWalk(float $by): BvhMotion
{
    $bvh = BvhReader::read(walkAsBvh());
    $channels = array_map(static fn (Channel $c): Channel => $c->path !== 'translation' ? $c : new Channel(
        $c->target, $c->path, $c->interpolation, $c->times,
        array_map(static fn (float $v, int $k): float => $k % 3 === 1 ? $v + $by : $v, $c->values, array_keys($c->values)), 3,
    ), $bvh->clip->channels);

    return new BvhMotion($bvh->skeleton, new Clip('raised', $channels), $bvh->frames, $bvh->frameSeconds, []);
}

test('a ground below zero is lifted and told; feet high above it may stand on something, and are asked about', function (): void {
    $height = static function (float $by, array $leave = []): float {
        $bvh = raisedWalk($by);

        return ImportedMotion::sampled($bvh->clip, $bvh->skeleton, figure('bram'), 'walk', [], $leave)->at(1.0)[1];
    };
    $told = static fn (float $by, array $leave = []): array => array_map(
        static fn (Finding $f): array => [$f->code, $f->mended],
        RecordingCheck::of(raisedWalk($by)->clip, raisedWalk($by)->skeleton, [], $leave),
    );
    $even = $height(0.0);
    expect($told(0.0))->toBe([])->and($told(-90.0))->toBe([['ground', true]])->and($told(-90.0, ['ground']))->toBe([['ground', false]])
        ->and($told(80.0))->toBe([['ground', false]])->and($told(80.0, ['+ground']))->toBe([['ground', true]])
        ->and($told(10.0))->toBe([['ground', true]]);
    expect($height(-90.0))->toEqualWithDelta($even, 0.002)->and($height(10.0))->toEqualWithDelta($even, 0.002)
        ->and($height(80.0) - $even)->toBeGreaterThan(0.7)->and($height(80.0, ['+ground']))->toEqualWithDelta($even, 0.002)
        ->and($even - $height(-90.0, ['ground']))->toBeGreaterThan(0.8);
});
