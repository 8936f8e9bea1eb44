<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Assets\Dresser;
use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;
use App\Models\AssetVersion;
use CrispReel\Core\Document\Wish;
use CrispReel\Core\Surfaces\Oklab;
use Illuminate\Support\Facades\DB;
use stdClass;

/** Colour, picture or finish of a surface of one thing, or of all things of the same asset; null gives back what it came with. */
final class ItemDress implements EditCommand
{
    private const WISHES = ['colour' => 1, 'finish' => 1, 'picture' => 1, 'metres' => 1, 'variant' => 1];

    public function name(): string
    {
        return 'item.dress';
    }

    public function rules(): array
    {
        return [
            'item' => 'required', 'surface' => 'sometimes|string|max:200', 'at' => 'sometimes|array',
            'at.material' => 'required_with:at|string|max:190', 'at.colour' => 'sometimes|nullable|array|size:3',
            'at.colour.*' => 'numeric|between:0,4', 'colour' => ['sometimes', 'nullable', 'regex:/^#[0-9a-fA-F]{6}$/'],
            'finish' => 'sometimes|nullable|in:'.implode(',', array_keys(Wish::FINISHES)),
            'picture' => 'sometimes|nullable', 'variant' => 'sometimes|nullable|string|max:80',
            'metres' => 'sometimes|numeric|between:0.01,100', 'all' => 'sometimes|boolean', 'reset' => 'sometimes|boolean',
        ];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $item = $scene->find('items', $in['item']);
        $given = array_intersect_key($in, self::WISHES);
        if (isset($in['picture'])) {
            $given['picture'] = $this->picture($scene, $in['picture']);
        }
        if (is_string($in['colour'] ?? null)) {
            $given['colour'] = strtolower($in['colour']);
        }
        $key = is_string($in['surface'] ?? null) ? $in['surface'] : '';
        if (is_array($in['at'] ?? null)) {
            $key = $this->pointedAt($item, $in['at']);
        }
        if (array_key_exists('variant', $in)) {
            [$key, $given] = [Wish::WHOLE, ['variant' => $in['variant']]];
        }
        $reset = ($in['reset'] ?? false) === true;
        if (! $reset && ($given === [] || $key === '')) {
            throw new UserError(
                'dress.nothing',
                'It is not said which surface is to change, or how.',
                'Give "surface", and "colour", "finish" or "picture".',
            );
        }
        // What a new version no longer has can still be given back.
        $name = $reset || $key === ''
            ? ''
            : ($key === Wish::WHOLE ? $this->variant($item, $in['variant'] ?? null) : $this->named($item, $key));
        foreach ($this->meant($item, ($in['all'] ?? false) === true) as $one) {
            $scene->rows->update(
                'items',
                (int) $one->id,
                ['surfaces' => $this->changed(is_string($one->surfaces) ? $one->surfaces : '', $key, $given, $reset)],
            );
        }

        return $reset ? "Give {$item->name} its own surfaces back" : "Dress {$item->name}, {$name}";
    }

    /** @return list<stdClass> */
    private function meant(stdClass $item, bool $all): array
    {
        return $all ? array_values(
            DB::table('items')->where('scene_id', $item->scene_id)->where('asset_id', $item->asset_id)->orderBy('id')->get()->all()
        ) : [$item];
    }

    private function picture(EditContext $scene, mixed $ref): int
    {
        $asset = $scene->asset($ref);
        if ($asset->kind !== 'picture') {
            throw new UserError(
                'dress.no-picture',
                "\"{$asset->name}\" is a {$asset->kind}, not a picture.",
                'Choose one from the shelf of pictures, or drop one in.',
            );
        }

        return $asset->id;
    }

    private function blob(stdClass $item): string
    {
        return AssetVersion::query()->when(
            $item->pinned_version_id !== null,
            static fn ($q) => $q->where('id', $item->pinned_version_id),
            static fn ($q) => $q->where('asset_id', $item->asset_id)->orderByDesc('number'),
        )->firstOrFail()->blob;
    }

    /** @return list<array{key: string, name: string, colour: string, picture: bool, share: float}> of the variant that it wears */
    private function surfaces(stdClass $item): array
    {
        $worn = json_decode(is_string($item->surfaces) ? $item->surfaces : '', true);
        $variant = is_array($worn) && is_array($worn[Wish::WHOLE] ?? null) ? $worn[Wish::WHOLE]['variant'] ?? null : null;

        return app(Dresser::class)->surfaces($this->blob($item), is_string($variant) ? $variant : null);
    }

    private function variant(stdClass $item, mixed $wanted): string
    {
        $names = array_column(app(Dresser::class)->variants($this->blob($item)), 'name');
        if ($wanted !== null && ! in_array($wanted, $names, true)) {
            throw new UserError(
                'dress.variant',
                sprintf('"%s" has no variant "%s".', $item->name, is_string($wanted) ? $wanted : '?'),
                $names === [] ? 'Its file offers none.' : 'It has: '.implode(', ', $names).'.',
            );
        }

        return is_string($wanted) ? lcfirst($wanted) : 'as its file has it';
    }

    /**
     * The surface that shows a colour: of its material's tones the nearest, in what it came in or in what it wears now.
     *
     * @param  array<array-key, mixed>  $at
     */
    private function pointedAt(stdClass $item, array $at): string
    {
        $worn = json_decode(is_string($item->surfaces) ? $item->surfaces : '', true);
        $seen = is_array($at['colour'] ?? null)
            ? Oklab::of([(float) $at['colour'][0], (float) $at['colour'][1], (float) $at['colour'][2]])
            : null;
        $best = ['', INF];
        foreach ($this->surfaces($item) as $s) {
            $material = preg_replace('/#[0-9a-f]{6}$/', '', $s['key']);
            if ($material !== $at['material'] && ! ($at['material'] === '' && str_starts_with($s['key'], 'surface '))) {
                continue;
            }
            $now = is_array($worn) && is_string($worn[$s['key']]['colour'] ?? null) ? $worn[$s['key']]['colour'] : $s['colour'];
            $lab = Oklab::of(Oklab::linear($now));
            $far = $seen === null ? 0.0 : hypot(0.4 * ($lab[0] - $seen[0]), hypot($lab[1] - $seen[1], $lab[2] - $seen[2]));
            $best = $far < $best[1] ? [$s['key'], $far] : $best;
        }

        return $best[0];
    }

    private function named(stdClass $item, string $key): string
    {
        $all = $this->surfaces($item);
        foreach ($all as $s) {
            if ($s['key'] === $key) {
                return lcfirst($s['name']);
            }
        }
        throw new UserError(
            'dress.surface',
            "\"{$item->name}\" has no surface \"{$key}\".",
            'It has: '.implode(', ', array_slice(array_column($all, 'key'), 0, 12)).'.',
        );
    }

    /** @param  array<string, mixed>  $given */
    private function changed(string $json, string $key, array $given, bool $reset): ?string
    {
        $all = json_decode($json, true);
        $all = is_array($all) ? $all : [];
        if ($reset) {
            $all = $key === '' ? [] : array_diff_key($all, [$key => 1]);
        } else {
            $wish = array_filter($given + (is_array($all[$key] ?? null) ? $all[$key] : []), static fn (mixed $v): bool => $v !== null);
            $all[$key] = $wish;
            if (array_diff_key($wish, ['metres' => 1]) === []) {
                unset($all[$key]);
            }
        }
        ksort($all);

        return $all === [] ? null : json_encode($all, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES);
    }
}
