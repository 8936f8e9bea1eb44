<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Assets\Dresser;
use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Exceptions\UserError;
use App\Models\AssetVersion;
use CrispReel\Core\Surfaces\Wish;
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
            'item' => 'required', 'surface' => 'sometimes|string|max:200', 'colour' => ['sometimes', 'nullable', 'regex:/^#[0-9a-fA-F]{6}$/'], 'finish' => 'sometimes|nullable|in:'.implode(',', array_keys(Wish::FINISHES)),
            'picture' => 'sometimes|nullable', 'variant' => 'sometimes|nullable|string|max:80', 'metres' => 'sometimes|numeric|between:0.01,100', 'all' => 'sometimes|boolean', 'reset' => 'sometimes|boolean',
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
        if (array_key_exists('variant', $in)) {
            [$key, $given] = [Wish::WHOLE, ['variant' => $in['variant']]];
        }
        $reset = ($in['reset'] ?? false) === true;
        if (! $reset && ($given === [] || $key === '')) {
            throw new UserError('dress.nothing', 'It is not said which surface is to change, or how.', 'Give "surface", and "colour", "finish" or "picture".');
        }
        $name = $key === '' ? '' : ($key === Wish::WHOLE ? $this->variant($item, $in['variant'] ?? null) : $this->named($item, $key));
        foreach ($this->meant($item, ($in['all'] ?? false) === true) as $one) {
            $scene->rows->update('items', (int) $one->id, ['surfaces' => $this->changed(is_string($one->surfaces) ? $one->surfaces : '', $key, $given, $reset)]);
        }

        return $reset ? "Give {$item->name} its own surfaces back" : "Dress {$item->name}, {$name}";
    }

    /** @return list<stdClass> */
    private function meant(stdClass $item, bool $all): array
    {
        return $all ? array_values(DB::table('items')->where('scene_id', $item->scene_id)->where('asset_id', $item->asset_id)->orderBy('id')->get()->all()) : [$item];
    }

    private function picture(EditContext $scene, mixed $ref): int
    {
        $asset = $scene->asset($ref);
        if ($asset->kind !== 'picture') {
            throw new UserError('dress.no-picture', "\"{$asset->name}\" is a {$asset->kind}, not a picture.", 'Choose one from the shelf of pictures, or drop one in.');
        }

        return $asset->id;
    }

    private function blob(stdClass $item): string
    {
        return AssetVersion::query()->when($item->pinned_version_id !== null, static fn ($q) => $q->where('id', $item->pinned_version_id), static fn ($q) => $q->where('asset_id', $item->asset_id)->orderByDesc('number'))->firstOrFail()->blob;
    }

    private function variant(stdClass $item, mixed $wanted): string
    {
        $names = array_column(app(Dresser::class)->variants($this->blob($item)), 'name');
        if ($wanted !== null && ! in_array($wanted, $names, true)) {
            throw new UserError('dress.variant', sprintf('"%s" has no variant "%s".', $item->name, is_string($wanted) ? $wanted : '?'), $names === [] ? 'Its file offers none.' : 'It has: '.implode(', ', $names).'.');
        }

        return is_string($wanted) ? lcfirst($wanted) : 'as its file has it';
    }

    private function named(stdClass $item, string $key): string
    {
        $all = app(Dresser::class)->surfaces($this->blob($item));
        foreach ($all as $s) {
            if ($s['key'] === $key) {
                return lcfirst($s['name']);
            }
        }
        throw new UserError('dress.surface', "\"{$item->name}\" has no surface \"{$key}\".", 'It has: '.implode(', ', array_slice(array_column($all, 'key'), 0, 12)).'.');
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
