<?php

declare(strict_types=1);

use CrispReel\Core\Speech\Emotions;
use CrispReel\Core\Speech\Guess;
use CrispReel\Core\Speech\Ipa;
use CrispReel\Core\Speech\Page;
use CrispReel\Core\Speech\Phone;
use CrispReel\Core\Speech\Reading;
use CrispReel\Core\Speech\Script;
use CrispReel\Core\Speech\Word;

test('a reading comes back from what is stored of it, to a tenth of a millisecond', function (): void {
    $reading = new Reading(
        1.23456, [new Phone('pau', 0.0, 0.21), new Phone('b', 0.21, 0.30001, 0, true, true)], [new Word('bé', 0.21, 1.0)], [0.0, 0.12345],
    );
    $back = Reading::fromArray(json_decode(json_encode($reading->toArray(), JSON_THROW_ON_ERROR), true));
    expect($back->toArray())->toBe($reading->toArray())->and($back->seconds)->toBe(1.2346)->and($back->phones[1]->accented)->toBeTrue();
});

test('what is no reading is refused', function (array $data): void {
    expect(fn () => Reading::fromArray($data))->toThrow(InvalidArgumentException::class);
})->with([[[]], [['seconds' => 'long']], [['seconds' => 1, 'phones' => [['aa', 'x', 1]]]], [['seconds' => 1, 'phones' => [[3, 0, 1]]]]]);

test('phrases are runs of sounds between pauses, and a stop of a moment parts none', function (): void {
    $reading = new Reading(2.0, [
        new Phone('pau', 0.0, 0.2), new Phone('aa', 0.2, 0.4), new Phone('pau', 0.4, 0.43), new Phone('t', 0.43, 0.5),
        new Phone('pau', 0.5, 0.9), new Phone('iy', 0.9, 1.2), new Phone('pau', 1.2, 2.0),
    ], []);
    expect($reading->phrases())->toBe([[0.2, 0.5], [0.9, 1.2]])->and($reading->spoken())->toBe([0.2, 1.2])
        ->and((new Reading(0.7, [], []))->spoken())->toBe([0.0, 0.7]);
});

test('weight lies on accented vowels and on the last stressed one of each phrase', function (): void {
    $reading = new Reading(2.0, [
        new Phone(
            'aa', 0.0, 0.2, 0, true, true,
        ), new Phone('t', 0.2, 0.3), new Phone('iy', 0.3, 0.5, 1, true), new Phone('ax', 0.5, 0.6, 1),
        new Phone('pau', 0.6, 1.0), new Phone('ow', 1.0, 1.4, 2, true, true),
    ], []);
    expect($reading->accents())->toEqual([[0.1, false], [0.4, true], [1.2, true]]);
});

test('letters alone give a length, words in their order, and sounds without gaps', function (string $text, int $words, float $least): void {
    $guess = Guess::of($text);
    $at = 0.0;
    foreach ($guess->phones as $p) {
        expect($p->from)->toEqualWithDelta($at, 1e-9)->and($p->to)->toBeGreaterThan($p->from);
        $at = $p->to;
    }
    expect($guess->words)->toHaveCount($words)->and($guess->seconds)->toEqualWithDelta($at, 1e-9)->toBeGreaterThan($least)
        ->and($guess->guessed)->toBeTrue();
})->with([
    'a sentence' => ['The boat is late, again.', 5, 1.2], 'one word' => ['No.', 1, 0.4], 'nothing' => ['', 0, 0.3],
    'another script' => ['Привет, мир', 2, 1.0], 'signs only' => ['… !!', 0, 0.3], 'figures' => ['In 45 days', 3, 0.6],
]);

test('twice the pace is half the time', function (): void {
    $words = static fn (float $pace): float => array_sum(array_map(
        static fn (Word $w): float => $w->to - $w->from, Guess::of('please put my boat by the window', $pace)->words,
    ));
    expect($words(2.0))->toEqualWithDelta($words(1.0) / 2, 1e-9);
});

test('a line says words, pauses and what is done', function (): void {
    expect(Script::pieces('Wait. [1.5 s] *No*, [nod] go [ 2 ] on[0,5s]'))->toBe([
        ['say' => 'Wait.'], ['pause' => 1.5], ['say' => 'No,'], ['do' => 'nod'], ['say' => 'go'], ['pause' => 2.0], ['say' => 'on'],
        ['pause' => 0.5],
    ])
        ->and(
            Script::heard("Wait.  [1.5 s]\n*No*, go"),
        )->toBe('Wait. No, go')->and(Script::weighty('It is *my Boat*!'))->toBe(['my', 'boat'])
        ->and(
            Script::does('a [nod] b, c [Dance] d [3] [look at the Bell]'),
        )->toBe([['nod', 1], ['dance', 3], ['look at the bell', 4]])->and(Script::pieces('[900 s]'))->toBe([['pause' => 60.0]])
        ->and(Script::pieces(''))->toBe([])->and(Script::heard('[nod]'))->toBe('');
});

test('questions and shouts are told by their ends', function (): void {
    expect(Script::asks('Are you sure?” '))->toBeTrue()->and(Script::asks('Are you? No.'))->toBeFalse()
        ->and(Script::shouts('Stop! [nod]'))->toBeTrue()->and(Script::shouts('Stop it.'))->toBeFalse();
});

test('a page of dialogue becomes lines by speaker', function (): void {
    $page = "ODA: Has he gone?\n\nBram (calls): Not yet!\nHe waits: no,\nhe sleeps.\n  Old Mr. Finch:\n\nstray words\nPim (mumbling): What";
    expect(Page::lines($page))->toBe([
        ['name' => 'ODA', 'text' => 'Has he gone?', 'delivery' => ''], ['name' => 'Bram', 'text' => 'Not yet!', 'delivery' => 'called'],
        ['name' => 'He waits', 'text' => 'no, he sleeps.', 'delivery' => ''],
        ['name' => 'Old Mr. Finch', 'text' => 'stray words', 'delivery' => ''], ['name' => 'Pim', 'text' => 'What', 'delivery' => ''],
    ])->and(Page::lines("no names here\nat all"))->toBe([]);
});

test('phonetic letters become sounds that the mouth knows', function (string $name, array $sounds): void {
    expect(Ipa::sounds($name))->toBe($sounds);
})->with([
    ['tS', ['ch']], ['oU', ['ow']], ['A@', ['aa', 'r']], ['i:', ['iy']], ['I2', ['ih']], ["'aI", ['ay']], ['_:', ['pau']], ['|', ['pau']],
    ['?', ['pau']], ['G', ['ax']], ['b', ['b']],
]);

test('every emotion has a face of its own, both sides where none is named', function (): void {
    $faces = array_map(Emotions::shapes(...), Emotions::NAMES);
    expect(array_unique(array_map(json_encode(...), $faces)))->toHaveCount(10)->and(Emotions::shapes('none'))->toBe([])
        ->and(Emotions::shapes('glad')['cornerUpL'])->toBe(1.0)->and(Emotions::shapes('glad'))->toHaveKey('cornerUpR')
        ->and(Emotions::shapes('doubtful'))->not->toHaveKey('browDownL')->and(Emotions::held('glad'))->toBe([0.0, 0.0, 0.0, 0.0, 0.0]);
});
