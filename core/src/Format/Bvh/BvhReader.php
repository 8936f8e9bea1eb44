<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Bvh;

use CrispReel\Core\Math\Q4;
use CrispReel\Core\Rig\Channel;
use CrispReel\Core\Rig\Clip;
use CrispReel\Core\Rig\Interpolation;
use CrispReel\Core\Rig\Skeleton;

/**
 * BVH text: a hierarchy of joints with offsets and channels, then one line of numbers a frame. Channels come in any
 * order; rotations are degrees about the axes in the order of the channels, the first one outermost.
 */
final class BvhReader
{
    public const MOST_FRAMES = 100_000;

    public const MOST_JOINTS = 512;

    private const AXES = ['Xrotation' => [1.0, 0.0, 0.0], 'Yrotation' => [0.0, 1.0, 0.0], 'Zrotation' => [0.0, 0.0, 1.0]];

    private const PLACES = ['Xposition' => 0, 'Yposition' => 1, 'Zposition' => 2];

    /** @var list<array{string, int}> words and the line they stand on */
    private array $words = [];

    private int $next = 0;

    /** @var list<string> */
    private array $names = [];

    /** @var list<int> */
    private array $parents = [];

    /** @var list<float> */
    private array $offsets = [];

    /** @var list<list<string>> channels by joint */
    private array $channels = [];

    /** @var list<string> */
    private array $findings = [];

    private function __construct(string $hierarchy)
    {
        foreach (preg_split('/\r\n|\r|\n/', $hierarchy) ?: [] as $n => $line) {
            foreach (preg_split('/\s+/', trim($line)) ?: [] as $word) {
                if ($word !== '') {
                    $this->words[] = [$word, $n + 1];
                }
            }
        }
    }

    public static function looksLike(string $bytes): bool
    {
        return preg_match('/^\xEF?\xBB?\xBF?\s*HIERARCHY\b/i', substr($bytes, 0, 200)) === 1;
    }

    /** @throws UnableToReadBvh */
    public static function read(string $text): BvhMotion
    {
        $text = preg_replace('/^\xEF\xBB\xBF/', '', $text) ?? $text;
        $at = preg_match('/^\s*MOTION\b/im', $text, $m, PREG_OFFSET_CAPTURE) === 1 ? $m[0][1] : null;
        if ($at === null) {
            throw UnableToReadBvh::at(max(1, substr_count($text, "\n")), 'the word MOTION is missing; the file is cut off');
        }
        $reader = new self(substr($text, 0, $at));
        $reader->hierarchy();

        return $reader->motion(substr($text, $at), substr_count(substr($text, 0, $at), "\n"));
    }

    private function word(): string
    {
        return $this->words[$this->next++][0] ?? throw UnableToReadBvh::at($this->line(), 'the hierarchy ends in the middle');
    }

    private function line(): int
    {
        return $this->words === [] ? 1 : $this->words[min(max(0, $this->next - 1), count($this->words) - 1)][1];
    }

    private function expect(string $wanted): void
    {
        $word = $this->word();
        if (strcasecmp($word, $wanted) !== 0) {
            throw UnableToReadBvh::at($this->line(), "\"{$wanted}\" belongs where \"".mb_substr($word, 0, 40).'" stands');
        }
    }

    private function number(): float
    {
        $word = $this->word();
        if (! is_numeric($word) || ! is_finite((float) $word)) {
            throw UnableToReadBvh::at($this->line(), '"'.mb_substr($word, 0, 40).'" is not a number');
        }

        return (float) $word;
    }

    private function hierarchy(): void
    {
        $this->expect('HIERARCHY');
        $this->expect('ROOT');
        $this->joint(-1);
        for ($roots = 1; isset($this->words[$this->next]); $roots++) {
            strcasecmp($this->word(), 'ROOT') === 0
                || throw UnableToReadBvh::at($this->line(), 'something else than a root after the hierarchy');
            $this->joint(-1);
        }
        if ($roots > 1) {
            $this->findings[] = "It has {$roots} roots; the body is taken, what the others move is left out.";
        }
    }

    private function joint(int $parent): void
    {
        $name = '';
        while (($word = $this->word()) !== '{') {
            $name = ltrim("{$name} {$word}");
        }
        if (count($this->names) >= self::MOST_JOINTS) {
            throw UnableToReadBvh::tooMuch('joints', count($this->names) + 1, self::MOST_JOINTS);
        }
        $me = count($this->names);
        $this->names[] = $this->freeName($name === '' ? "joint {$me}" : $name);
        $this->parents[] = $parent;
        $this->expect('OFFSET');
        array_push($this->offsets, $this->number(), $this->number(), $this->number());
        $this->channels[] = [];
        while (true) {
            $word = $this->word();
            switch (strtoupper($word)) {
                case 'CHANNELS':
                    $count = (int) $this->number();
                    for ($i = 0; $i < $count; $i++) {
                        $channel = ucfirst(strtolower($this->word()));
                        if (! isset(self::AXES[$channel]) && ! isset(self::PLACES[$channel])) {
                            throw UnableToReadBvh::at($this->line(), "\"{$channel}\" is not a channel");
                        }
                        $this->channels[$me][] = $channel;
                    }
                    break;
                case 'JOINT':
                    $this->joint($me);
                    break;
                case 'END':
                    $this->endSite($me);
                    break;
                case '}':
                    return;
                default:
                    throw UnableToReadBvh::at($this->line(), '"'.mb_substr($word, 0, 40).'" is not known here');
            }
        }
    }

    /** End sites tell where the last bone ends; they become joints without channels. */
    private function endSite(int $parent): void
    {
        while ($this->word() !== '{') {
            // "Site", and a name that some writers add.
        }
        $this->expect('OFFSET');
        $this->names[] = $this->freeName($this->names[$parent].' end');
        $this->parents[] = $parent;
        array_push($this->offsets, $this->number(), $this->number(), $this->number());
        $this->channels[] = [];
        $this->expect('}');
    }

    private function freeName(string $wish): string
    {
        for ($n = 1, $name = $wish; in_array($name, $this->names, true); $n++) {
            $name = "{$wish} ".($n + 1);
        }
        if ($name !== $wish) {
            $this->findings[] = "Two joints are called \"{$wish}\"; the later one is called \"{$name}\" here.";
        }

        return $name;
    }

    private function motion(string $text, int $linesBefore): BvhMotion
    {
        $end = strpos($text, "\n");
        if (preg_match('/^\s*MOTION\s+Frames:\s*(-?\d+)\s+Frame\s*Time:\s*([-+0-9.eE]+)/i', $text, $m) !== 1) {
            throw UnableToReadBvh::at($linesBefore + ($end === false ? 1 : 2), 'after MOTION come "Frames:" and "Frame Time:"');
        }
        $frames = (int) $m[1];
        $seconds = (float) $m[2];
        if ($frames < 2) {
            throw UnableToReadBvh::noFrames(max(0, $frames));
        }
        if ($frames > self::MOST_FRAMES) {
            throw UnableToReadBvh::tooMuch('frames', $frames, self::MOST_FRAMES);
        }
        if ($seconds <= 0.0 || ! is_finite($seconds)) {
            $this->findings[] = 'The time of a frame is not given; 30 frames a second are taken.';
            $seconds = 1 / 30;
        }
        $width = array_sum(array_map(count(...), $this->channels));
        $rows = $this->rows(substr($text, strlen($m[0])), $frames, $width, $linesBefore + substr_count($m[0], "\n") + 1);
        $count = count($rows);
        if ($count < 2) {
            throw UnableToReadBvh::noFrames($count);
        }
        if ($count < $frames) {
            $this->findings[] = "The file tells of {$frames} frames and has {$count}; these are taken.";
        }

        return $this->clip($rows, $seconds);
    }

    /** @return list<list<float>> */
    private function rows(string $text, int $frames, int $width, int $line): array
    {
        $rows = [];
        $held = 0;
        foreach (preg_split('/\r\n|\r|\n/', $text) ?: [] as $k => $words) {
            $words = trim($words);
            if ($words === '') {
                continue;
            }
            if (count($rows) === $frames) {
                $this->findings[] = 'There are more lines than frames; the rest is left out.';
                break;
            }
            $numbers = preg_split('/\s+/', $words) ?: [];
            if (count($numbers) !== $width) {
                throw UnableToReadBvh::at($line + $k, sprintf('%d numbers where the joints have %d channels', count($numbers), $width));
            }
            $row = [];
            foreach ($numbers as $i => $n) {
                $v = is_numeric($n) ? (float) $n : NAN;
                if (! is_finite($v) || abs($v) > 1e7) {
                    if ($rows === []) {
                        throw UnableToReadBvh::at($line + $k, '"'.mb_substr($n, 0, 40).'" is not a number');
                    }
                    $v = $rows[count($rows) - 1][$i] ?? 0.0;
                    $held++;
                }
                $row[] = $v;
            }
            $rows[] = $row;
        }
        if ($held > 0) {
            $this->findings[] = "{$held} values are no numbers; each keeps the value of the frame before.";
        }

        return $rows;
    }

    /** @param  list<list<float>>  $rows */
    private function clip(array $rows, float $seconds): BvhMotion
    {
        $times = array_map(static fn (int $i): float => $i * $seconds, array_keys($rows));
        $n = count($this->names);
        $identity = array_merge(...array_fill(0, $n, Q4::IDENTITY));
        $skeleton = new Skeleton($this->names, $this->parents, $this->offsets, $identity, array_fill(0, 3 * $n, 1.0));
        // Travel may be keyed at the root, at the hips, or in parts at several joints above them.
        $travels = array_fill_keys($skeleton->above($skeleton->roles['hips'] ?? -1), true);
        $out = [];
        $column = 0;
        $unused = 0;
        foreach ($this->channels as $j => $channels) {
            [$turned, $placed] = [[], []];
            $rest = array_slice($this->offsets, 3 * $j, 3);
            $turns = array_filter($channels, static fn (string $c): bool => isset(self::AXES[$c]));
            $places = array_filter($channels, static fn (string $c): bool => isset(self::PLACES[$c]));
            foreach ($rows as $row) {
                $q = Q4::IDENTITY;
                $p = $rest;
                foreach ($channels as $k => $c) {
                    isset(self::AXES[$c])
                        ? $q = Q4::mul($q, Q4::axis(self::AXES[$c], deg2rad($row[$column + $k])))
                        : $p[self::PLACES[$c]] = $row[$column + $k];
                }
                array_push($turned, ...$q);
                array_push($placed, ...$p);
            }
            $column += count($channels);
            if ($turns !== []) {
                $out[] = new Channel($this->names[$j], 'rotation', Interpolation::Linear, $times, $turned, 4);
            }
            if ($places !== [] && ($this->parents[$j] < 0 || isset($travels[$j]))) {
                $out[] = new Channel($this->names[$j], 'translation', Interpolation::Linear, $times, $placed, 3);
            } elseif ($places !== []) {
                $unused++;
            }
        }
        if ($unused > 0) {
            $this->findings[] = "{$unused} joints below the hips have place channels; bones keep their length, so these are left out.";
        }

        return new BvhMotion($skeleton, new Clip('', $out), count($rows), $seconds, $this->findings);
    }
}
