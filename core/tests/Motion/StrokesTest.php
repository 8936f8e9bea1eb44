<?php

declare(strict_types=1);

use CrispReel\Core\Math\V3;
use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Motion\Model\ArmTrack;
use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Model\MotionSampler;
use CrispReel\Core\Motion\Model\Strokes;
use CrispReel\Core\Rig\Figure;
use CrispReel\Core\Rig\Posture;
use CrispReel\Core\Tests\Support\FakeAssets;

function speaker(): Figure
{
    static $figure = null;

    return $figure ??= new Figure('oda', FakeAssets::digestOf('oda'));
}

/** @param  array<string, mixed>  $settings */
function said(array $settings): ClipTable
{
    return MotionSampler::table(speaker()->body(), new MotionRecipe('talk', $settings), speaker()->morphs);
}

/** @return array{float, float, float} place of a joint in the figure's space */
function talkerAt(ClipTable $t, string $role, float $seconds): array
{
    $f = speaker();

    return (new Posture($f->skeleton, $f->hips, $t->at($seconds)))->at($f->skeleton->roles[$role])[0];
}

test('there are two dozen strokes and more, each from one known pose to another', function (): void {
    expect(count(Strokes::SENSES))->toBeGreaterThanOrEqual(24);
    foreach (Strokes::SENSES as [$from, $to, $times, $hands]) {
        expect(ArmTrack::POSES)->toHaveKey($from)->toHaveKey($to)->and($times)->toBeBetween(1, 3)->and($hands)->toBeIn([1, 2]);
    }
    $pairs = array_map(static fn (array $s): string => implode(' ', array_slice($s, 0, 4)), Strokes::SENSES);
    expect(count(array_unique($pairs)))->toBeGreaterThanOrEqual(24);
});

test('a word has its sense, whatever clings to it', function (string $word, string $sense): void {
    expect(Strokes::sense($word))->toBe($sense);
})->with([
    ['you', 'you'], ['You,', 'you'], ["you're", 'you'], ['*NO*', 'no'], ['"never!"', 'no'], ['clocks', 'time'], ['why?', 'question'],
    ['turns', 'again'], ['marmalade', 'beat'], ['', 'beat'],
]);

test('words are spread by syllables, with breaths where the line has them', function (): void {
    // Two words of one syllable: half of the time each.
    $s = Strokes::spoken('one two', 4.95);
    expect($s)->toHaveCount(2)->and($s[0]['at'])->toEqualWithDelta(0.35, 1e-9)->and($s[1]['at'])->toEqualWithDelta(2.35, 1e-9)
        ->and($s[1]['until'])->toEqualWithDelta(4.35, 1e-9);
    // Three syllables against one, and a stop of 2.2 between: 4 + 2.2 parts.
    $s = Strokes::spoken('Remember. That', 7.15);
    expect($s[0]['until'])->toEqualWithDelta(3.35, 1e-9)->and($s[1]['at'])->toEqualWithDelta(0.35 + 5.2, 1e-9);
    // A mute e makes no syllable; a dash alone is no word; a marked word is a little longer.
    expect(Strokes::spoken('come - here', 3.0))->toHaveCount(2);
    $s = Strokes::spoken('*one* two', 4.95);
    expect($s[0]['marked'])->toBeTrue()->and($s[0]['until'] - $s[0]['at'])->toEqualWithDelta(4.0 * 1.4 / 2.4, 1e-9);
    expect(Strokes::spoken('', 4.0))->toBe([]);
});

test('marked words get their strokes, on the word', function (): void {
    [$left, $right, $beats] = Strokes::of('The *tide* decides, and never the *clock*.', 5.0, 1.0, 3);
    expect(array_column($beats, 'sense'))->toBe(['beat', 'no', 'time']);
    $spoken = Strokes::spoken('The *tide* decides, and never the *clock*.', 5.0);
    foreach ([0 => 1, 2 => 6] as $k => $word) {
        $stroke = array_values(array_filter([...$left, ...$right], static fn (array $s): bool => abs($s['t'] - $beats[$k]['t']) < 0.06))[0];
        // It lands within a tenth of a second of the word's beginning.
        expect($stroke['t'] + $stroke['seconds'])->toEqualWithDelta($spoken[$word]['at'], 0.1);
    }
    // Without marks words that mean something are taken, never closer than the arms can go.
    [, , $beats] = Strokes::of('You and me and everybody here: no, no, no!', 4.0, 1.0, 3);
    foreach (array_slice($beats, 1) as $i => $b) {
        expect($b['t'] - $beats[$i]['t'])->toBeGreaterThan(0.6);
    }
    expect(count($beats))->toBeGreaterThan(1);
});

test('every stroke moves a hand, keeps it out of the body and brings it home', function (string $sense): void {
    $words = ['beat' => 'marmalade', 'question' => 'why', 'you' => 'you', 'me' => 'me', 'we' => 'we'][$sense] ?? null;
    $reflection = (new ReflectionClass(Strokes::class))->getConstant('WORDS');
    $word = $words ?? explode(' ', $reflection[$sense])[0];
    $talk = said(['seed' => 4, 'seconds' => 4.0, 'line' => "la la *{$word}* la la la"]);
    $moved = 0.0;
    $rest = ['L' => talkerAt($talk, 'handL', 0.0), 'R' => talkerAt($talk, 'handR', 0.0)];
    for ($t = 0.0; $t <= 4.0; $t += 0.05) {
        $chest = talkerAt($talk, 'chest', $t);
        foreach (['L', 'R'] as $s) {
            $hand = talkerAt($talk, "hand{$s}", $t);
            $moved = max($moved, V3::distance($hand, $rest[$s]));
            // Beside the trunk's axis by more than a fist, or before it by more than its depth.
            $beside = abs($hand[0] - $chest[0]);
            if ($hand[1] > talkerAt($talk, 'hips', $t)[1] && $hand[1] < talkerAt($talk, 'neck', $t)[1]) {
                expect($beside > 0.14 || $hand[2] - $chest[2] > 0.09)->toBeTrue("{$sense}: hand {$s} in the trunk at {$t} s");
            }
            if ($t > 3.9) {
                expect(V3::distance($hand, $rest[$s]))->toBeLessThan(0.2);
            }
        }
    }
    expect($moved)->toBeGreaterThan(0.12);
})->with(array_keys(Strokes::SENSES));

test('the mouth moves on words and rests in pauses', function (): void {
    $line = 'Wait. Listen.';
    $talk = said(['seed' => 4, 'seconds' => 5.0, 'line' => $line]);
    $spoken = Strokes::spoken($line, 5.0);
    $open = static function (float $t) use ($talk): float {
        $row = $talk->at($t);
        $sum = 0.0;
        foreach (speaker()->morphs as $k => $m) {
            $sum += in_array($m, ['jawOpen', 'press', 'lowerIn', 'upperUp', 'lowerDown', 'funnel', 'pucker', 'tongueUp'], true)
                ? $row[3 + 4 * speaker()->skeleton->count() + $k]
                : 0.0;
        }

        return $sum;
    };
    expect($open(($spoken[0]['at'] + $spoken[0]['until']) / 2))->toBeGreaterThan(0.3)
        ->and($open(($spoken[0]['until'] + $spoken[1]['at']) / 2))->toBeLessThan(0.02);
});

test('a line is part of the recipe; without one the seed speaks', function (): void {
    $a = said(['seed' => 4, 'seconds' => 3.0, 'line' => 'No *you* wait.']);
    $b = said(['seed' => 4, 'seconds' => 3.0, 'line' => 'No you *wait*.']);
    $c = said(['seed' => 4, 'seconds' => 3.0]);
    expect($a->at(1.5))->not->toBe($b->at(1.5))->and($a->at(1.5))->not->toBe($c->at(1.5));
    expect(said(['seed' => 4, 'seconds' => 3.0, 'line' => 7])->at(1.5))->toBe($c->at(1.5));
});
