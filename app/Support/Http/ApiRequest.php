<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Routing\Route;
use Illuminate\Validation\Validator;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\RequirePermission;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Secrets\MaskedInput;
use LucidStep\App\Support\Secrets\ProjectSecrets;

/**
 * A request of a signed-in person. Its rules say what may come in. Values that are secret in the project are hidden here in all that a
 * person writes, before anything else sees it.
 */
abstract class ApiRequest extends FormRequest
{
    /** Whether secret values are what the request brings. */
    protected const BRINGS_SECRETS = false;

    private ?MaskedInput $masked = null;

    /** What every act of the walk may say of the device. */
    protected const STAMP = [
        'device_time' => ['nullable', 'date'],
        'sent_at' => ['nullable', 'date'],
        'counter' => ['nullable', 'integer', 'min:0', 'max:9007199254740991'],
    ];

    protected const WORDS = ['nullable', 'string', 'max:10000'];

    /** Steps of a case or a routine. */
    protected const STEPS = [
        'steps' => ['array', 'max:500'],
        'steps.*.action' => ['nullable', 'string', 'max:20000'],
        'steps.*.data' => ['nullable', 'string', 'max:20000'],
        'steps.*.expected' => ['nullable', 'string', 'max:20000'],
        'steps.*.routine' => ['nullable', 'uuid'],
        'steps.*.values' => ['nullable', 'array'],
        'steps.*.values.*' => ['nullable', 'string', 'max:4000'],
        'steps.*.files' => ['nullable', 'array', 'max:20'],
        'steps.*.files.*.sha256' => ['required', 'string', 'size:64'],
        'steps.*.files.*.name' => ['nullable', 'string', 'max:200'],
    ];

    /** The texts of a case beside its title. */
    protected const TEXTS = [
        'objective' => ['nullable', 'string', 'max:20000'],
        'preconditions' => ['nullable', 'string', 'max:20000'],
        'postconditions' => ['nullable', 'string', 'max:20000'],
        ...self::STEPS,
        'table' => ['nullable', 'uuid'],
        'files' => ['nullable', 'array', 'max:50'],
        'files.*.sha256' => ['required', 'string', 'size:64'],
        'files.*.name' => ['nullable', 'string', 'max:200'],
    ];

    /** When a cycle is, for what, and who has part in it. */
    protected const CYCLE = [
        'description' => ['nullable', 'string', 'max:20000'],
        'build_id' => ['nullable', 'uuid'],
        'environment_id' => ['nullable', 'uuid'],
        'milestone_id' => ['nullable', 'uuid'],
        'phase' => ['nullable', 'string', 'max:60'],
        'folder' => ['nullable', 'string', 'max:200'],
        'priority' => ['nullable', 'string', 'max:60'],
        'conditions_hold' => ['boolean'],
        'default_assignee_id' => ['nullable', 'uuid'],
        'testers' => ['nullable', 'array', 'max:500'],
        'testers.*' => ['uuid'],
        'watchers' => ['nullable', 'array', 'max:500'],
        'watchers.*' => ['uuid'],
    ];

    /**
     * @return array<string, mixed>
     */
    abstract public function rules(): array;

    /**
     * The rules, with bounds for every whole number that has none of its own, as the database keeps 31 bits, and an offset for every
     * moment, which would be another in each time zone without.
     *
     * @return array<string, mixed>
     */
    protected function validationRules(): array
    {
        return array_map(
            static fn(mixed $rules): mixed => match (true) {
                !\is_array($rules) => $rules,
                \in_array('integer', $rules, true) => [...$rules, ...self::bounds($rules)],
                \in_array('date', $rules, true) => [...$rules, new MomentRule()],
                default => $rules,
            },
            parent::validationRules(),
        );
    }

    /**
     * @param  array<array-key, mixed>  $rules of one field
     *
     * @return list<string>
     */
    private static function bounds(array $rules): array
    {
        $has = static fn(string $name): bool => [] !==
            array_filter($rules, static fn(mixed $r): bool => \is_string($r) && str_starts_with($r, $name));

        return [
            ...$has('max:') || $has('between:') ? [] : ['max:2147483647'],
            ...$has('min:') || $has('between:') ? [] : ['min:-2147483648'],
        ];
    }

    /**
     * What fields are called in what is said of them.
     */
    protected function withValidator(Validator $validator): void
    {
        $validator->setImplicitAttributesFormatter(FieldWords::of(...));
        $names = array_keys($validator->getRules());
        $validator->setAttributeNames(array_combine($names, array_map(FieldWords::of(...), $names)));
    }

    /**
     * Hides what is secret in the project, also in what is read without the rules.
     */
    protected function passedValidation(): void
    {
        $project = $this->projectId();
        $mask =
            static::BRINGS_SECRETS || null === $project ? null : ProjectSecrets::mask($project, app(Memberships::class)->hidden($project));
        if (null === $mask || $mask->isEmpty()) {
            return;
        }
        $rules = $this->getValidatorInstance();
        $this->masked = new MaskedInput($mask, $rules instanceof Validator ? $rules->getRules() : []);
        $this->replace($this->masked->texts($this->getInputSource()->all()));
        $this->files->replace($this->masked->files($this->allFiles()));
        unset($this->convertedFiles);
    }

    /**
     * In which project it writes; null: in none.
     */
    protected function projectId(): ?string
    {
        $route = $this->route();

        return $route instanceof Route ? RequirePermission::project($route) : null;
    }

    /**
     * What came in and is known, lists in the order in which they came.
     *
     * @param  array<array-key, mixed>|int|string|null  $key
     * @param  mixed  $default
     */
    public function validated($key = null, $default = null): mixed
    {
        $all = (array) parent::validated();

        return data_get(self::inOrder($this->masked?->texts($this->masked->files($all)) ?? $all), $key, $default);
    }

    /**
     * @param  array<array-key, mixed>  $values
     *
     * @return array<array-key, mixed>
     */
    private static function inOrder(array $values): array
    {
        // The validator puts together first what its first rule found, so that a list may come out shuffled.
        if ([] === array_filter(array_keys($values), is_string(...))) {
            ksort($values);
        }

        return array_map(static fn(mixed $v): mixed => \is_array($v) ? self::inOrder($v) : $v, $values);
    }

    public function person(): User
    {
        $user = $this->user();

        return $user instanceof User ? $user : throw new \LogicException('The route lets people in who are not signed in.');
    }

    public function stamp(): DeviceStamp
    {
        return DeviceStamp::fromArray($this->validated());
    }
}
