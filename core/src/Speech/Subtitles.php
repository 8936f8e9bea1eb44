<?php

declare(strict_types=1);

namespace CrispReel\Core\Speech;

/**
 * What is said as subtitles: SubRip and WebVTT. A long line is shown in parts of two rows, each for as long as its words are
 * spoken.
 *
 * @phpstan-type Part array{from: float, to: float, text: string, name: string}
 */
final class Subtitles
{
    /** Letters of a row, and rows of a part. */
    private const ROW = 42;

    private const ROWS = 2;

    /** Seconds that a part stands at least, and that it stays when nothing follows. */
    private const LEAST = 1.0;

    private const STAYS = 0.35;

    /** @var list<Part> */
    private array $parts = [];

    /**
     * Words of a line, each with the seconds in which it is spoken.
     *
     * @param  list<Word>  $words  in seconds of what the subtitles are for
     */
    public function add(string $name, string $heard, array $words, float $from, float $to): void
    {
        $written = preg_split('/\s+/u', $heard, -1, PREG_SPLIT_NO_EMPTY) ?: [];
        $begins = $from;
        $text = '';
        foreach ($written as $k => $w) {
            $longer = $text === '' ? $w : "{$text} {$w}";
            if ($text !== '' && mb_strlen($longer) > self::ROW * self::ROWS) {
                $cut = self::begins($words, $k, count($written), $from, $to);
                $this->parts[] = ['from' => $begins, 'to' => $cut, 'text' => $text, 'name' => $name];
                [$begins, $longer] = [$cut, $w];
            }
            $text = $longer;
        }
        if ($text !== '') {
            $this->parts[] = ['from' => $begins, 'to' => $to, 'text' => $text, 'name' => $name];
        }
    }

    /**
     * When a written word begins; voices may count words otherwise (figures), then by its place in the line.
     *
     * @param  list<Word>  $words
     */
    private static function begins(array $words, int $k, int $count, float $from, float $to): float
    {
        return count($words) === $count ? $words[$k]->from : $from + ($to - $from) * $k / max(1, $count);
    }

    public function srt(): string
    {
        $out = '';
        foreach ($this->shown() as $n => $p) {
            $out .= ($n + 1)."\r\n".self::time($p['from'], ',').' --> '.self::time($p['to'], ',')."\r\n"
                .str_replace("\n", "\r\n", self::rows($p['text']))."\r\n\r\n";
        }

        return $out;
    }

    public function vtt(): string
    {
        $out = "WEBVTT\n";
        foreach ($this->shown() as $p) {
            $escape = static fn (string $s): string => str_replace(['&', '<', '>'], ['&amp;', '&lt;', '&gt;'], $s);
            $out .= "\n".self::time($p['from'], '.').' --> '.self::time($p['to'], '.')."\n"
                .'<v '.$escape(str_replace("\n", ' ', $p['name'])).'>'.$escape(self::rows($p['text']))."\n";
        }

        return $out;
    }

    /** @return list<Part> by their beginnings, each long enough to be read where the next one lets it */
    private function shown(): array
    {
        $parts = $this->parts;
        usort($parts, static fn (array $a, array $b): int => $a['from'] <=> $b['from']);
        foreach ($parts as $k => $p) {
            $room = $parts[$k + 1]['from'] ?? INF;
            $wanted = max($p['to'] + self::STAYS, $p['from'] + self::LEAST);
            $parts[$k]['from'] = max(0.0, $p['from']);
            $parts[$k]['to'] = max($p['to'], min($wanted, $room));
        }

        return array_values(array_filter($parts, static fn (array $p): bool => $p['to'] > 0.0));
    }

    /** In rows of about the same length. */
    private static function rows(string $text): string
    {
        if (mb_strlen($text) <= self::ROW) {
            return $text;
        }
        $words = explode(' ', $text);
        $best = [INF, $text];
        for ($k = 1; $k < count($words); $k++) {
            [$one, $two] = [implode(' ', array_slice($words, 0, $k)), implode(' ', array_slice($words, $k))];
            $longest = max(mb_strlen($one), mb_strlen($two));
            $best = $longest < $best[0] ? [$longest, "{$one}\n{$two}"] : $best;
        }

        return $best[1];
    }

    private static function time(float $seconds, string $point): string
    {
        $ms = (int) round(1000.0 * $seconds);

        return sprintf(
            '%02d:%02d:%02d%s%03d', intdiv($ms, 3_600_000), intdiv($ms, 60_000) % 60, intdiv($ms, 1000) % 60, $point, $ms % 1000,
        );
    }
}
