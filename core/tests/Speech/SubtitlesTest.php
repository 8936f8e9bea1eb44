<?php

declare(strict_types=1);

use CrispReel\Core\Speech\Subtitles;
use CrispReel\Core\Speech\Word;

test('lines are shown for as long as they are spoken, and a moment more', function (): void {
    $s = new Subtitles;
    $s->add('Bram', 'Not yet!', [new Word('Not', 3.0, 3.2), new Word('yet', 3.2, 3.5)], 3.0, 3.5);
    $s->add('Oda', 'Has he <gone> & left?', [], 1.0, 2.0);
    $rows = ['1', '00:00:01,000 --> 00:00:02,350', 'Has he <gone> & left?', '', '2', '00:00:03,000 --> 00:00:04,000', 'Not yet!', '', ''];
    expect($s->srt())->toBe(implode("\r\n", $rows))->and($s->vtt())->toBe(implode("\n", [
        'WEBVTT', '', '00:00:01.000 --> 00:00:02.350', '<v Oda>Has he &lt;gone&gt; &amp; left?', '', '00:00:03.000 --> 00:00:04.000',
        '<v Bram>Not yet!', '',
    ]));
});

test('a long line stands in parts of two rows, cut where its words are spoken', function (): void {
    $written = explode(' ', trim(str_repeat('winding the old clock again ', 6)));
    $words = array_map(static fn (string $w, int $k): Word => new Word($w, 10.0 + $k, 10.9 + $k), $written, array_keys($written));
    $s = new Subtitles;
    $s->add('Oda', implode(' ', $written), $words, 10.0, 39.9);
    $parts = explode("\r\n\r\n", trim($s->srt()));
    expect(count($parts))->toBe(2);
    $said = '';
    foreach ($parts as $part) {
        $rows = array_slice(explode("\r\n", $part), 2);
        expect(count($rows))->toBeLessThanOrEqual(2);
        foreach ($rows as $row) {
            expect(mb_strlen($row))->toBeLessThanOrEqual(52);
        }
        $said .= ' '.implode(' ', $rows);
    }
    expect(trim($said))->toBe(implode(' ', $written));
    // The second part begins with its first word.
    preg_match('/(\d\d:\d\d:\d\d,\d{3}) -->/', $parts[1], $m);
    $first = count(explode(' ', str_replace("\r\n", ' ', implode("\r\n", array_slice(explode("\r\n", $parts[0]), 2)))));
    expect($m[1])->toBe(sprintf('00:00:%02d,000', 10 + $first));
});

test('who is followed at once gives way, and nothing stands before the beginning', function (): void {
    $s = new Subtitles;
    $s->add('A', 'One.', [], -0.5, 0.4);
    $s->add('B', 'Two.', [], 0.6, 0.8);
    $s->add('C', 'Gone by then.', [], -3.0, -2.0);
    expect($s->srt())->toContain('00:00:00,000 --> 00:00:00,600')->not->toContain('Gone by then')
        ->and((new Subtitles)->srt())->toBe('')->and((new Subtitles)->vtt())->toBe("WEBVTT\n");
});
