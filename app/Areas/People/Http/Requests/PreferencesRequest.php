<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Requests;

use Illuminate\Validation\Rule;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Notices\Data\NoticeKind;
use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\Core\People\ColorScheme;
use LucidStep\Core\People\Density;
use LucidStep\Core\People\KeyMap;
use LucidStep\Core\People\NoticeChoice;
use LucidStep\Core\People\Preferences;
use LucidStep\Core\People\UnusableKeys;
use OpenApi\Attributes as OA;

/**
 * How a person wants to work; what is left out stays.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'time_zone', type: 'string', nullable: true),
            new OA\Property(property: 'scheme', type: 'string', enum: ['system', 'light', 'dark']),
            new OA\Property(property: 'density', type: 'string', enum: ['roomy', 'dense']),
            new OA\Property(property: 'single_keys', type: 'boolean'),
            new OA\Property(
                property: 'keys',
                type: 'array',
                description: 'All of them; they are exchanged among each other',
                items: new OA\Items(ref: '#/components/schemas/KeyChoice'),
            ),
            new OA\Property(
                property: 'notices',
                type: 'array',
                description: 'Those that change',
                items: new OA\Items(ref: '#/components/schemas/NoticeSetting'),
            ),
        ],
    ),
]
final class PreferencesRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'time_zone' => ['nullable', 'string', 'max:64', 'timezone:all'],
            'scheme' => [Rule::enum(ColorScheme::class)],
            'density' => [Rule::enum(Density::class)],
            'single_keys' => ['boolean'],
            'keys' => ['array', 'max:100'],
            'keys.*.key' => ['required', 'string', 'max:4', 'distinct:strict'],
            'keys.*.pressed' => ['required', 'string', 'max:4'],
            'notices' => ['array', 'max:50'],
            'notices.*.kind' => ['required', Rule::enum(NoticeKind::class)],
            'notices.*.here' => ['required', 'boolean'],
            'notices.*.mail' => ['required', 'boolean'],
        ];
    }

    public function preferences(Preferences $before): Preferences
    {
        /** @var array{time_zone?: ?string, scheme?: string, density?: string, single_keys?: bool} $new */
        $new = (array) $this->validated();

        return new Preferences(
            \array_key_exists('time_zone', $new) ? $new['time_zone'] : $before->timeZone,
            isset($new['scheme']) ? ColorScheme::from($new['scheme']) : $before->scheme,
            isset($new['density']) ? Density::from($new['density']) : $before->density,
            $this->boolean('single_keys', $before->singleKeys),
            $this->has('keys') ? $this->keyMap() : $before->keys,
            [...$before->notices, ...$this->notices()],
        );
    }

    private function keyMap(): KeyMap
    {
        /** @var list<array{key: string, pressed: string}> $keys */
        $keys = (array) $this->validated('keys');
        try {
            return KeyMap::of(array_column($keys, 'pressed', 'key'));
        } catch (UnusableKeys $e) {
            throw ValidationException::withMessages(['keys' => $e->getMessage()]);
        }
    }

    /**
     * @return array<string, NoticeChoice>
     */
    private function notices(): array
    {
        $choices = [];
        /** @var list<array{kind: string, here: bool, mail: bool}> $notices */
        $notices = (array) $this->validated('notices', []);
        foreach ($notices as $n) {
            $choices[$n['kind']] = new NoticeChoice((bool) $n['here'], (bool) $n['mail']);
        }

        return $choices;
    }
}
