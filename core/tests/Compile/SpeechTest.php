<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Utterance;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Math\Angle;
use CrispReel\Core\Speech\Phone;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/**
 * Oda and Bram a metre apart, face to face.
 *
 * @param  list<array<string, mixed>>  $lines
 * @param  array<string, mixed>  $more
 */
function conversation(array $lines, array $more = []): CompiledScene
{
    return Scenes::compile($more + [
        'items' => [Scenes::item('oda', 'oda', -0.5, 0.0, 90.0), Scenes::item('bram', 'bram', 0.5, 0.0, -90.0)], 'lines' => $lines,
    ]);
}

/** How much of a shape a performer's face shows at a frame. */
function shows(CompiledScene $scene, string $who, string $shape, float $frame): float
{
    $figure = $scene->lanes[$who]->figure;
    $k = array_search($shape, $figure->morphs, true);

    return $scene->poses->at($frame)->row($who)[3 + 4 * $figure->skeleton->count() + (int) $k];
}

/** Degrees that a performer's head is pitched, nose down, in the scene. */
function nosesDown(CompiledScene $scene, string $who, float $frame): float
{
    $figure = $scene->lanes[$who]->figure;
    $head = (int) ($figure->skeleton->roles['head'] ?? 0);
    [, $q] = $figure->skeleton->jointIn($scene->poses->at($frame)->row($who), $figure->hips, $head);

    return rad2deg(asin(max(-1.0, min(1.0, -CrispReel\Core\Math\Q4::rotate($q, [0.0, 0.0, 1.0])[1]))));
}

test('lines begin at their frame, or a pause after the end of the one that they answer', function (): void {
    $scene = conversation([
        ['id' => 'c', 'item' => 'oda', 'text' => 'Go.', 'after' => 'b', 'pause' => -0.2],
        ['id' => 'a', 'item' => 'oda', 'text' => 'Has he gone?', 'start' => 20],
        ['id' => 'b', 'item' => 'bram', 'text' => 'Not yet.', 'after' => 'a', 'pause' => 0.5],
    ]);
    [$a, $b, $c] = $scene->utterances;
    expect(array_map(static fn (Utterance $u): string => $u->line->id, $scene->utterances))->toBe(['a', 'b', 'c'])
        ->and($a->start)->toBe(20.0)->and($b->start)->toEqualWithDelta($a->end + 12.0, 0.51)
        ->and($c->start)->toEqualWithDelta($b->end - 4.8, 0.51)->and($scene->frames)->toBe((int) ceil($c->end));
});

test('lines that wait for each other begin at their own frames', function (): void {
    $scene = conversation([
        ['id' => 'a', 'item' => 'oda', 'text' => 'One.', 'start' => 10, 'after' => 'b'],
        ['id' => 'b', 'item' => 'bram', 'text' => 'Two.', 'start' => 50, 'after' => 'a'],
    ]);
    expect($scene->utterances)->toHaveCount(2)->and(min(array_map(static fn (Utterance $u): float => $u->start, $scene->utterances)))
        ->toBeGreaterThanOrEqual(10.0);
});

test('a stored reading counts, and what it says of its sounds is what the mouth does', function (): void {
    $assets = new FakeAssets;
    $reading = [
        'seconds' => 1.0, 'words' => [['Mama', 0.3, 0.8]], 'loudness' => [], 'guessed' => false,
        'phones' => [
            ['pau', 0, 0.3], ['m', 0.3, 0.4, 0, 1], ['aa', 0.4, 0.6, 0, 1], ['m', 0.6, 0.7, 0], ['aa', 0.7, 0.8, 0], ['pau', 0.8, 1.0],
        ],
    ];
    $assets->solved['readings'] = json_encode(['reading' => $reading], JSON_THROW_ON_ERROR);
    $asset = ['id' => 'r1', 'kind' => 'reading', 'name' => 'Mama', 'blob' => str_repeat('a', 64), 'digest' => 'reading:readings'];
    $data = Scenes::data([
        'items' => [
            Scenes::item('oda', 'oda'),
        ], 'lines' => [['id' => 'a', 'item' => 'oda', 'text' => 'Mama', 'start' => 24, 'reading' => 'r1']],
    ]);
    $data['assets'][] = $asset;
    $scene = Scenes::compile($data, $assets);
    $u = $scene->utterances[0];
    expect($u->reading->guessed)->toBeFalse()->and($u->from)->toBe(24 + 7.2)->and($u->end)->toBe(48.0);
    // Frame 32 lies in the first m, frame 36 in the first aa.
    expect(shows($scene, 'oda', 'press', 32.0))->toBeGreaterThan(0.8)->and(shows($scene, 'oda', 'jawOpen', 36.0))->toBeGreaterThan(0.45)
        ->and(shows($scene, 'oda', 'press', 36.0))->toBeLessThan(0.1)->and(shows($scene, 'oda', 'jawOpen', 56.0))->toBeLessThan(0.05);
});

test('a talk that goes with a line begins before it and ends after it, wherever the line goes', function (int $start, string $text): void {
    $scene = conversation(
        [['id' => 'a', 'item' => 'oda', 'text' => $text, 'start' => $start, 'beat' => 't']],
        ['beats' => [Scenes::beat('t', 'oda', 'talk', 300)]],
    );
    [$u, $s] = [$scene->utterances[0], $scene->lanes['oda']->segments[0]];
    expect($s->start)->toEqualWithDelta(max(0.0, $u->from - 8.4), 2.0)->and($s->end)->toBeGreaterThan($u->to)
        ->and($s->end - max($u->to + 14.4, $s->start + 48.0))->toBeGreaterThan(-2.0)->toBeLessThan(3.0);
})->with([[40, 'No.'], [90, 'The last boat leaves at half past, with or without the old man and his key.']]);

test('another motion than a talk is begun anew or cut where the line ends', function (): void {
    $scene = conversation(
        [['id' => 'a', 'item' => 'oda', 'text' => 'Come back here this minute, all of you, and wait.', 'start' => 10, 'beat' => 't']],
        ['beats' => [Scenes::beat('t', 'oda', 'wave', 0)]],
    );
    expect($scene->lanes['oda']->segments[0]->end)->toEqualWithDelta($scene->utterances[0]->to + 14.4, 2.0);
});

test('who speaks and who listens meet eyes, and look on while they go on', function (): void {
    $scene = conversation([
        ['id' => 'a', 'item' => 'oda', 'text' => 'Has the ferry gone already?', 'start' => 20],
        ['id' => 'b', 'item' => 'bram', 'text' => 'It has not come at all today.', 'after' => 'a', 'pause' => 1.0],
    ]);
    $looks = array_map(static fn (array $of): array => array_map(
        static fn ($h): array => [$h->contact->target, $h->contact->from, $h->contact->to], $of,
    ), $scene->holds);
    expect($looks['oda'])->toHaveCount(1)->and($looks['bram'])->toHaveCount(1)->and($looks['oda'][0][0])->toBe('bram')
        ->and($looks['bram'][0][0])->toBe('oda')->and($looks['oda'][0][2])->toBeGreaterThan($scene->utterances[1]->to);
});

test('among three, eyes go to who speaks', function (): void {
    $scene = Scenes::compile([
        'items' => [
            Scenes::item('oda', 'oda', -0.6, 0.0, 90.0), Scenes::item('bram', 'bram', 0.6, 0.0, -90.0),
            Scenes::item('pim', 'pim-alder', 0.0, 1.0, 180.0),
        ],
        'lines' => [
            ['id' => 'a', 'item' => 'oda', 'text' => 'Who has taken the key from the hook?', 'start' => 20],
            ['id' => 'b', 'item' => 'pim', 'text' => 'It was not me, I only looked at it.', 'after' => 'a'],
            ['id' => 'c', 'item' => 'bram', 'text' => 'Then who was it?', 'after' => 'b', 'to' => 'oda'],
        ],
    ]);
    $targets = static fn (string $who): array => array_map(static fn ($h): ?string => $h->contact->target, $scene->holds[$who]);
    expect($targets('bram'))->toBe(['oda', 'pim', 'oda'])->and($targets('oda'))->toBe(['pim', 'bram'])
        ->and($targets('pim')[0])->toBe('oda')->and($targets('pim'))->toContain('bram');
});

test('a look that is set by hand, or eyes that are not to meet others, come before that', function (): void {
    $lines = [['id' => 'a', 'item' => 'oda', 'text' => 'Has the ferry gone already?', 'start' => 20]];
    $items = [Scenes::item('oda', 'oda', -0.5, 0.0, 90.0), ['meets' => false] + Scenes::item('bram', 'bram', 0.5, 0.0, -90.0)];
    $scene = conversation($lines, ['items' => $items, 'contacts' => [
        ['id' => 'k', 'item' => 'oda', 'effector' => 'look', 'target' => null, 'offset' => [0.0, 2.0, 3.0], 'from' => 0, 'to' => 200],
    ]]);
    expect($scene->holds['oda'])->toHaveCount(1)->and($scene->holds['oda'][0]->contact->id)->toBe('k')
        ->and($scene->holds)->not->toHaveKey('bram')->and($scene->poses->faces)->not->toHaveKey('bram');
});

test('a listener nods when a clause is over', function (): void {
    $said = conversation([['id' => 'a', 'item' => 'oda', 'text' => 'I have waited here since noon.', 'start' => 20]]);
    $mute = conversation([]);
    $at = (int) round($said->utterances[0]->to + 0.42 * 24);
    // Against the frame before the nod, so that only the nod counts.
    $nod = nosesDown($said, 'bram', $at) - nosesDown($said, 'bram', $said->utterances[0]->to - 2);
    expect($nod)->toBeGreaterThan(2.5)->toBeLessThan(7.0)->and($mute->poses->faces)->toBe([]);
});

test('a shout startles who hears it, a question raises their brows', function (): void {
    $lines = [['id' => 'a', 'item' => 'oda', 'text' => 'Come back at once!', 'start' => 20]];
    $scene = conversation($lines);
    $u = $scene->utterances[0];
    expect(shows($scene, 'bram', 'wideL', $u->from + 0.5 * 24))->toBeGreaterThan(0.3);
    $asked = conversation([['text' => 'Are you coming back?'] + $lines[0]]);
    expect(shows($asked, 'bram', 'browOutUpL', $asked->utterances[0]->to + 6))->toBeGreaterThan(0.4)
        ->and(shows($asked, 'bram', 'wideL', $asked->utterances[0]->from + 12))->toBeLessThan(0.05);
});

test('under speech a mood keeps its brows and part of its corners, and gives the mouth away', function (): void {
    $angry = ['expressions' => [['id' => 'x', 'item' => 'oda', 'emotion' => 'angry', 'from' => 0, 'easeIn' => 0]]];
    $mute = conversation([], $angry);
    $scene = conversation([['id' => 'a', 'item' => 'oda', 'text' => 'Are all our aunts away?', 'start' => 0]], $angry);
    $u = $scene->utterances[0];
    $vowel = array_values(array_filter($u->reading->phones, static fn (Phone $p): bool => $p->name === 'aa'))[0];
    $at = $u->frame(($vowel->from + $vowel->to) / 2);
    expect(shows($mute, 'oda', 'browDownL', 20.0))->toEqualWithDelta(1.1, 0.01)->and(shows($mute, 'oda', 'press', 20.0))
        ->toEqualWithDelta(0.5, 0.01)->and(shows($scene, 'oda', 'browDownL', $at))->toEqualWithDelta(1.1, 0.01)
        ->and(shows($scene, 'oda', 'press', $at))->toBeLessThan(0.05)
        ->and(shows($scene, 'oda', 'cornerDownL', $at))->toEqualWithDelta(0.65 * shows($mute, 'oda', 'cornerDownL', 20.0), 0.02);
});

test('expressions come and go by their frames, and what rests shows where nothing else does', function (): void {
    $scene = conversation([], [
        'items' => [['resting' => 'sad', 'restingAmount' => 0.5, 'life' => 'off'] + Scenes::item('oda', 'oda')],
        'expressions' => [['id' => 'x', 'item' => 'oda', 'emotion' => 'surprised', 'amount' => 0.8, 'from' => 40, 'to' => 60, 'easeIn' => 8,
            'easeOut' => 8, 'shapes' => ['mouthL' => 0.5]]],
    ]);
    expect(shows($scene, 'oda', 'chinUp', 10.0))->toEqualWithDelta(0.25, 1e-6)->and(shows($scene, 'oda', 'wideL', 10.0))->toBe(0.0)
        ->and(shows($scene, 'oda', 'wideL', 50.0))->toEqualWithDelta(0.72, 0.03)
        ->and(shows($scene, 'oda', 'mouthL', 50.0))->toEqualWithDelta(0.4, 1e-6)
        ->and(shows($scene, 'oda', 'chinUp', 50.0))->toEqualWithDelta(0.05, 1e-6)
        ->and(shows($scene, 'oda', 'wideL', 36.0))->toEqualWithDelta(0.36, 0.05)->and($scene->frames)->toBe(60);
});

test('a wide eye shuts all the same', function (): void {
    $scene = conversation([], ['expressions' => [
        ['id' => 'x', 'item' => 'oda', 'emotion' => 'none', 'from' => 0, 'easeIn' => 0, 'shapes' => ['wideL' => 1.0, 'blinkL' => 1.0]],
    ]]);
    expect(shows($scene, 'oda', 'wideL', 10.0))->toBe(0.0)->and(shows($scene, 'oda', 'blinkL', 10.0))->toEqualWithDelta(1.0, 1e-6);
});

test('two lines of one person at once are told, with a way out, and so is a bracket that nobody knows', function (): void {
    $scene = conversation([
        ['id' => 'a', 'item' => 'oda', 'text' => 'The boat has gone without us.', 'start' => 10],
        ['id' => 'b', 'item' => 'oda', 'text' => 'And the key [juggles] with it.', 'start' => 20],
    ]);
    $codes = array_map(static fn (Finding $f): string => $f->code, $scene->notes);
    expect($codes)->toContain('line.twice')->toContain('line.unknown');
    $twice = array_values(array_filter($scene->notes, static fn (Finding $f): bool => $f->code === 'line.twice'))[0];
    expect($twice->mend()?->commands[0]->toArray())->toMatchArray(['do' => 'line.set', 'line' => 'b', 'after' => 'a']);
});

test('a nod, a shake and a blink that a line asks for are done where they stand', function (): void {
    $assets = new FakeAssets;
    $reading = static fn (array $events): string => json_encode(['reading' => [
        'seconds' => 3.0, 'words' => [['Aha', 0.3, 0.6]], 'phones' => [['pau', 0, 0.3], ['ax', 0.3, 0.6, 0, 0], ['pau', 0.6, 3.0]],
        'events' => $events,
    ]], JSON_THROW_ON_ERROR);
    $scene = static function (array $events) use ($assets, $reading): CompiledScene {
        $assets->solved['r'.count($events)] = $reading($events);
        $data = Scenes::data([
            'items' => [['life' => 'off'] + Scenes::item('oda', 'oda')],
            'lines' => [['id' => 'a', 'item' => 'oda', 'text' => 'Aha', 'start' => 0, 'reading' => 'r1']],
        ]);
        $data['assets'][] = [
            'id' => 'r1', 'kind' => 'reading', 'name' => 'Aha', 'blob' => str_repeat('a', 64), 'digest' => 'reading:r'.count($events),
        ];

        return Scenes::compile($data, $assets);
    };
    $plain = $scene([]);
    $done = $scene([['nod', 1.0], ['blink', 2.0], ['shake', 2.2]]);
    expect(nosesDown($done, 'oda', 26.0) - nosesDown($plain, 'oda', 26.0))->toBeBetween(5.0, 10.0)
        ->and(shows($done, 'oda', 'blinkL', 48.0))->toBeGreaterThan(0.95)->and(shows($done, 'oda', 'blinkL', 40.0))->toBeLessThan(0.1);
    $yaw = static function (CompiledScene $s, float $f): float {
        $head = (int) ($s->lanes['oda']->figure->skeleton->roles['head'] ?? 0);
        $ahead = CrispReel\Core\Math\Q4::rotate($s->poses->at($f)->joint('oda', $head)->rotation, [0.0, 0.0, 1.0]);

        return rad2deg(atan2($ahead[0], $ahead[2]));
    };
    $sways = array_map(static fn (int $f): float => $yaw($done, $f) - $yaw($plain, $f), range(56, 74));
    expect(max($sways))->toBeGreaterThan(5.0)->and(min($sways))->toBeLessThan(-5.0);
});

test('names of pieces change with what is said in them, and only there', function (): void {
    $lines = [
        ['id' => 'a', 'item' => 'oda', 'text' => 'The boat has gone.', 'start' => 10],
        ['id' => 'b', 'item' => 'oda', 'text' => 'Never mind.', 'start' => 400],
    ];
    $one = conversation($lines);
    $other = conversation([$lines[0], ['text' => 'Do not mind.'] + $lines[1]]);
    $name = static fn (
        CompiledScene $s, int $from
    ): string => json_encode($s->poses->fingerprint('oda', $from, $from + 48), JSON_THROW_ON_ERROR);
    expect($name($one, 0))->toBe($name($other, 0))->and($name($one, 384))->not->toBe($name($other, 384));
});

test('heads of who speaks and listens face each other within ten degrees', function (): void {
    $scene = conversation(
        [['id' => 'a', 'item' => 'oda', 'text' => 'Has the ferry gone already, or is it late again today?', 'start' => 20]],
    );
    $u = $scene->utterances[0];
    foreach (['oda' => 1.0, 'bram' => -1.0] as $who => $way) {
        $figure = $scene->lanes[$who]->figure;
        $moment = $scene->poses->at(($u->from + $u->to) / 2);
        $head = $moment->joint($who, (int) ($figure->skeleton->roles['head'] ?? 0));
        $ahead = CrispReel\Core\Math\Q4::rotate($head->rotation, [0.0, 0.0, 1.0]);
        expect(abs(rad2deg(Angle::wrapped(atan2($ahead[0], $ahead[2]) - $way * M_PI / 2))))->toBeLessThan(10.0, $who);
    }
});
