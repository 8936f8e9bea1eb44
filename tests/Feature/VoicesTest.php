<?php

declare(strict_types=1);

use App\Speech\EspeakVoice;
use App\Speech\FliteVoice;
use App\Speech\LineReader;
use App\Speech\Manner;
use App\Speech\NoVoice;
use App\Speech\Take;
use App\Speech\TonesVoice;
use App\Speech\Voice;
use App\Speech\VoiceBook;
use App\Speech\VoiceCard;
use App\Speech\Wish;
use CrispReel\Core\Format\Wave;
use CrispReel\Core\Speech\Mouth;
use CrispReel\Core\Speech\MouthTable;
use CrispReel\Core\Speech\Phone;
use CrispReel\Core\Speech\Reading;
use CrispReel\Core\Speech\Word;

/** A line read by one of the house's voices. */
function spoken(string $text, string $voice = 'lantern', string $delivery = 'plain', float $pace = 1.0): Take
{
    static $reader = new LineReader;

    return $reader->read(new Wish($text, VoiceBook::find($voice) ?? throw new LogicException($voice), $delivery, $pace));
}

/** Hertz of a voice in a stretch: the lag at which the sound is most like itself (50 to 500 Hz). */
function pitchOf(Wave $wave, float $from, float $to): float
{
    $part = array_slice($wave->samples, (int) ($from * $wave->rate), (int) (($to - $from) * $wave->rate));
    $best = [0.0, 0.0];
    for ($lag = (int) ($wave->rate / 500); $lag < (int) ($wave->rate / 50); $lag++) {
        $sum = 0.0;
        for ($i = 0, $n = count($part) - $lag; $i < $n; $i += 2) {
            $sum += $part[$i] * $part[$i + $lag];
        }
        $best = $sum > $best[0] * 1.02 ? [$sum, $wave->rate / $lag] : $best;
    }

    return $best[1];
}

test('every program that reads tells sounds without gaps, words in their order, and is loud where vowels are', function (
    Voice $voice, string $base, string $text, int $words,
): void {
    $take = $voice->read($text, new Manner($base));
    $at = $take->phones[0]->from;
    foreach ($take->phones as $p) {
        expect($p->from)->toEqualWithDelta($at, 0.002)->and($p->to)->toBeGreaterThanOrEqual($p->from);
        $at = $p->to;
    }
    expect($at)->toBeLessThanOrEqual($take->wave->seconds() + 0.02)->and($take->words)->toHaveCount($words);
    foreach ($take->words as $k => $w) {
        expect($w->to)->toBeGreaterThan($w->from)->and($w->from)->toBeGreaterThanOrEqual($take->words[$k - 1]->to ?? 0.0);
    }
    $level = static fn (bool $vowels): float => array_sum($of = array_map(
        static fn (Phone $p): float => $take->wave->level($p->from, $p->to),
        array_filter($take->phones, static fn (Phone $p): bool => $p->seconds() > 0.03 && ($vowels ? $p->isVowel() : $p->isPause())),
    )) / max(1, count($of));
    expect($level(true))->toBeGreaterThan(5 * $level(false))->toBeGreaterThan(0.01);
    // The same words again, and slower.
    $again = $voice->read($text, new Manner($base));
    expect($again->wave->seconds())->toEqualWithDelta($take->wave->seconds(), 0.01)
        ->and($voice->read($text, new Manner($base, 0.7))->wave->seconds())->toBeGreaterThan(1.15 * $take->wave->seconds());
})->with([
    'flite' => [
        new FliteVoice, 'slt', 'Put my boat by the window.', 6,
    ], 'flite, figures' => [new FliteVoice, 'rms', 'Dr. Finch has 3 boats.', 5],
    'flite, a word twice' => [
        new FliteVoice, 'awb', 'No no, never.', 3,
    ], 'espeak' => [new EspeakVoice, 'en', 'Put my boat by the window.', 6],
    'espeak, German' => [new EspeakVoice, 'de', 'Wir fahren über das Wasser.', 5],
    'espeak, Russian' => [
        new EspeakVoice, 'ru', 'Мы идём домой.', 3,
    ], 'tones' => [new TonesVoice, 'tones', 'Put my boat by the window.', 6],
]);

test('flite tells the stress of syllables and the weight of the sentence', function (): void {
    $take = (new FliteVoice)->read('Again the doctor waited.', new Manner('slt'));
    $of = static fn (string $word): array => array_values(array_filter(
        $take->phones, static fn (Phone $p): bool => $p->word >= 0 && strtolower($take->words[$p->word]->text) === $word && $p->isVowel(),
    ));
    expect($of('again')[0]->stressed)->toBeFalse()->and($of('again')[1]->stressed)->toBeTrue()->and($of('doctor')[0]->stressed)->toBeTrue()
        ->and($of('doctor')[1]->stressed)->toBeFalse()
        ->and(array_filter($take->phones, static fn (Phone $p): bool => $p->accented))->not->toBe([]);
});

test('a voice that is not there says so', function (Voice $voice, string $base): void {
    expect(fn () => $voice->read('Hello.', new Manner($base)))->toThrow(NoVoice::class, 'no voice "nobody" here');
})->with([[new FliteVoice, 'nobody'], [new EspeakVoice, 'nobody']]);

test('every voice of the book can be heard, and begins with a silence to breathe in', function (VoiceCard $card): void {
    $take = spoken('Mama, 3.', $card->id);
    expect($take->wave->peak())->toBeBetween(0.05, 0.98)->and($take->phones[0]->isPause())->toBeTrue()
        ->and($take->phones[0]->seconds())->toBeGreaterThan(0.15)->and($take->words)->not->toBe([]);
})->with(fn (): array => array_map(static fn (VoiceCard $c): array => [$c], VoiceBook::all()));

test('pauses are silences of their length, and words with weight are louder', function (): void {
    $take = spoken('Wait here. [1.5 s] Now *go* home.');
    $words = array_column(array_map(static fn (Word $w): array => [strtolower($w->text), $w], $take->words), 1, 0);
    expect($words['now']->from - $words['here']->to)->toBeBetween(1.5, 2.2)
        ->and($take->wave->level($words['here']->to + 0.2, $words['now']->from - 0.2))->toBeLessThan(0.002);
    $plain = spoken('Wait here. [1.5 s] Now go home.');
    $ratio = static fn (Take $t): float => $t->wave->level($words['go']->from, $words['go']->to)
        / $t->wave->level($words['wait']->from, $words['here']->to);
    expect($ratio($take) / $ratio($plain))->toBeBetween(1.2, 1.6);
    $accents = static fn (Take $t): int => count(array_filter($t->phones, static fn (Phone $p): bool => $p->accented
        && $p->word >= 0 && $t->words[$p->word]->text === 'go'));
    expect($accents($take))->toBeGreaterThan(0);
});

test('how a line is said is heard: its loudness, its pace', function (): void {
    $of = static fn (string $delivery): Take => spoken('The last boat leaves at half past.', 'oak', $delivery);
    [$plain, $angry, $sad, $called] = [$of('plain'), $of('angry'), $of('sad'), $of('called')];
    expect(
        $angry->wave->level(),
    )->toBeGreaterThan(1.3 * $plain->wave->level())->and($sad->wave->level())->toBeLessThan($plain->wave->level())
        ->and(
            $angry->wave->seconds(),
        )->toBeLessThan($plain->wave->seconds())->and($sad->wave->seconds())->toBeGreaterThan($plain->wave->seconds())
        ->and($called->wave->level())->toBeGreaterThan($angry->wave->level());
    // Whispering has no pitch: it is as loud above 2 kHz as below, or more.
    $whispered = $of('whispered');
    expect($whispered->wave->level())->toBeLessThan(0.5 * $plain->wave->level())->and($whispered->phones)->not->toBe([]);
});

test('a child is higher and keeps the times of its sounds', function (): void {
    $take = spoken('Papa, papa, papa.', 'pebble');
    $vowels = array_values(array_filter($take->phones, static fn (Phone $p): bool => $p->isVowel() && $p->seconds() > 0.08));
    $child = pitchOf($take->wave, $vowels[0]->from + 0.02, $vowels[0]->to);
    $man = spoken('Papa, papa, papa.', 'oak');
    $his = array_values(array_filter($man->phones, static fn (Phone $p): bool => $p->isVowel() && $p->seconds() > 0.06));
    expect($child)->toBeGreaterThan(210.0)->and(pitchOf($man->wave, $his[0]->from + 0.01, $his[0]->to))->toBeBetween(70.0, 150.0);
    // Each vowel is loud in its own time and the closure before it is not.
    foreach ($vowels as $v) {
        expect(
            $take->wave->level($v->from + 0.02, $v->to - 0.02),
        )->toBeGreaterThan(2.5 * $take->wave->level($v->from - 0.06, $v->from - 0.02));
    }
});

test('closures of lips are reached within a frame on a hundred lines that voices have read', function (): void {
    $voices = [[new FliteVoice, 'slt'], [new FliteVoice, 'rms'], [new FliteVoice, 'awb'], [new EspeakVoice, 'en']];
    $sounds = $missed = 0;
    foreach (range(0, 99) as $k) {
        [$voice, $base] = $voices[$k % 4];
        $take = $voice->read(['Please put my boat by the window.', 'Five brave men came above the farm before evening.',
            'Maybe mother found both lamps.', 'From here the ferry moves very far off, and nobody bumps my arm.'][$k % 4]
            .' Number '.$k.' of them.', new Manner($base, 0.85 + 0.004 * $k));
        $mouth = new Mouth(new Reading($take->wave->seconds(), $take->phones, [], LineReader::loudness($take->wave)), 1 / 24);
        foreach ($take->phones as $p) {
            $shape = in_array(
                $p->name, MouthTable::SEALS, true,
            ) ? 'press' : (in_array($p->name, MouthTable::TUCKS, true) ? 'lowerIn' : null);
            if ($shape === null) {
                continue;
            }
            $reached = 0.0;
            for ($f = (int) floor($p->from * 24); $f <= (int) ceil($p->to * 24); $f++) {
                $reached = max($reached, $mouth->at($f / 24)[$shape] ?? 0.0);
            }
            $sounds++;
            $missed += $reached < ($shape === 'press' ? 0.8 : 0.95) ? 1 : 0;
        }
    }
    expect($sounds)->toBeGreaterThan(500)->and($missed)->toBe(0);
});

test('people get voices of their kind, each another', function (): void {
    $cast = VoiceBook::cast(
        [1 => ['old', 'bun'], 2 => ['beard'], 3 => ['child', 'plaits'], 4 => ['bun'], 5 => ['beard', 'old'], 6 => ['child']],
    );
    $suits = static fn (int $n): array => $cast[$n]->suits;
    expect($suits(1))->toContain('woman')->toContain('old')->and($suits(2))->toContain('man')->not->toContain('old')
        ->and($suits(3))->toContain('child')->and($suits(4))->toContain('woman')->not->toContain('old')->and($suits(5))->toContain('old')
        ->and(array_unique(array_map(static fn (VoiceCard $c): string => $c->id, $cast)))->toHaveCount(6);
    // More people than voices: some share one.
    expect(VoiceBook::cast(array_fill(0, 9, ['child'])))->toHaveCount(9);
});

test('a voice that reads English alone says so of another script', function (): void {
    expect(fn () => spoken('Мы идём домой.'))->toThrow(NoVoice::class, 'reads English alone')
        ->and(spoken('Мы идём домой.', 'ru-m')->words)->toHaveCount(3)->and(spoken('Café Ørsted is open.')->words)->not->toBe([]);
});

test('what is done between words has its time in the line', function (): void {
    $take = spoken('Yes. [nod] [0.5 s] Go [shake] home.');
    $words = array_column(array_map(static fn (Word $w): array => [strtolower($w->text), $w], $take->words), 1, 0);
    expect(
        array_column($take->events, 0),
    )->toBe(['nod', 'shake'])->and($take->events[0][1])->toBeBetween($words['yes']->to - 0.01, $words['go']->from)
        ->and($take->events[1][1])->toBeBetween($words['go']->to - 0.01, $words['home']->from);
});

test('what cannot be said is told: signs alone, and nothing', function (string $text): void {
    expect(fn () => spoken($text))->toThrow(NoVoice::class, 'nothing in it that could be said');
})->with(['…', '[nod]', '?!', '🙂🙂']);

test('a line of five thousand letters is read', function (): void {
    $take = spoken(trim(str_repeat('We wait for the tide. ', 227)), 'tones');
    expect($take->wave->seconds())->toBeGreaterThan(200.0)->and($take->words)->toHaveCount(1135);
});
