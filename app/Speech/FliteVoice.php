<?php

declare(strict_types=1);

namespace App\Speech;

use CrispReel\Core\Format\Wave;
use CrispReel\Core\Speech\Phone;
use CrispReel\Core\Speech\Word;
use FFI\CData;

/**
 * English by flite's library, in this process: sounds come with their words, the stress of syllables and the weight the sentence
 * puts on them. Only for commands and queue workers.
 */
final class FliteVoice implements Voice
{
    private const HEADER = <<<'C'
        typedef struct { const char* name; void* features; } reel_voice;
        typedef struct { const char* type; int sample_rate; int num_samples; int num_channels; short* samples; } reel_wave;
        int flite_init(void);
        void* flite_synth_text(const char* text, void* voice);
        void* utt_relation(void* utterance, const char* name);
        void* relation_head(void* relation);
        void* item_next(void* item);
        float item_feat_float(void* item, const char* name);
        const char* ffeature_string(void* item, const char* path);
        void* utt_wave(void* utterance);
        void delete_utterance(void* utterance);
        int feat_set_float(void* features, const char* name, float value);
        C;

    private const LIBRARY = 'libflite.so.1';

    /** Pitch of each voice by itself, hertz, and how far it strays. */
    private const PITCH = ['slt' => [180.0, 22.0], 'rms' => [98.0, 18.0], 'awb' => [116.0, 22.0], 'kal16' => [102.0, 14.0]];

    private static ?Library $flite = null;

    /** @var array<string, array{Library, CData}> voices that are loaded, with the library that holds them */
    private static array $voices = [];

    public function read(string $text, Manner $manner): Take
    {
        if (preg_match_all('/\p{L}/u', $text) > 2 * preg_match_all('/\p{Latin}/u', $text)) {
            throw new NoVoice('This voice reads English alone. Choose one of the language that the line is written in.');
        }
        $flite = self::flite();
        $voice = $this->voice($manner->base);
        $features = Library::field($flite->cast('reel_voice*', $voice), 'features');
        [$hertz, $strays] = self::PITCH[$manner->base];
        foreach ([
            'duration_stretch' => 1.0 / $manner->pace, 'int_f0_target_mean' => $hertz * $manner->pitch,
            'int_f0_target_stddev' => $strays * $manner->pitch * $manner->range,
        ] as $name => $value) {
            $flite->call('feat_set_float', $features, $name, $value);
        }
        $utterance = $flite->call('flite_synth_text', $text, $voice);
        if (! $utterance instanceof CData) {
            throw new NoVoice('The voice could not read it.');
        }
        try {
            return $this->take($flite, $utterance);
        } finally {
            $flite->call('delete_utterance', $utterance);
        }
    }

    private static function flite(): Library
    {
        if (self::$flite === null) {
            self::$flite = Library::open(self::HEADER, self::LIBRARY, 'The voices of flite are not installed here.');
            self::$flite->call('flite_init');
        }

        return self::$flite;
    }

    private function voice(string $base): CData
    {
        if (! isset(self::PITCH[$base])) {
            throw new NoVoice("There is no voice \"{$base}\" here.");
        }
        if (! isset(self::$voices[$base])) {
            $library = Library::open(
                "void* register_cmu_us_{$base}(const char*);", "libflite_cmu_us_{$base}.so.1",
                "The voice \"{$base}\" is not installed here.",
            );
            $voice = $library->call("register_cmu_us_{$base}", null);
            self::$voices[$base] = [
                $library, $voice instanceof CData ? $voice : throw new NoVoice("The voice \"{$base}\" cannot be loaded."),
            ];
        }

        return self::$voices[$base][1];
    }

    private function take(Library $flite, CData $utterance): Take
    {
        $wave = $flite->cast('reel_wave*', $flite->call('utt_wave', $utterance));
        [$rate, $count] = [(int) Library::field($wave, 'sample_rate'), (int) Library::field($wave, 'num_samples')];
        $pcm = $flite->bytes(Library::field($wave, 'samples'), 2 * $count);
        $phones = $words = [];
        $from = 0.0;
        $last = '';
        $segments = $flite->call('utt_relation', $utterance, 'Segment');

        for ($s = $segments === null ? null : $flite->call('relation_head', $segments); $s !== null; $s = $flite->call('item_next', $s)) {
            $say = static fn (string $path): string => (string) $flite->call('ffeature_string', $s, $path);
            $to = (float) $flite->call('item_feat_float', $s, 'end');
            $name = $say('name');
            $token = $say('R:SylStructure.parent.parent.R:Token.parent.name');
            // The same word twice is two: it begins anew with its first syllable's first sound.
            $mark = $token === '0' ? '' : $token.'|'.$say('R:SylStructure.parent.parent.R:Token.parent.n.name').'|'
                .$say('R:SylStructure.parent.parent.R:Token.parent.p.name');
            $isPause = $name === Phone::PAUSE || $token === '0';
            if (! $isPause && $mark !== $last) {
                $words[] = [$token, $from, $to];
            } elseif (! $isPause) {
                $words[count($words) - 1][2] = $to;
            }
            $last = $isPause ? '' : $mark;
            $phones[] = new Phone(
                $isPause ? Phone::PAUSE : $name, $from, $to, $isPause ? -1 : count($words) - 1,
                $say('R:SylStructure.parent.stress') === '1', $say('R:SylStructure.parent.accented') === '1',
            );
            $from = $to;
        }

        return new Take(Wave::fromPcm($rate, $pcm), $phones, array_map(static fn (array $w): Word => new Word(...$w), $words));
    }
}
