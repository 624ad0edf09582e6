<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use Illuminate\Foundation\Http\FormRequest;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;

/**
 * A request of a signed-in person. Its rules say what may come in.
 */
abstract class ApiRequest extends FormRequest
{
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

    /** What is picked for a cycle, beside the cases themselves. */
    protected const PICKS = [
        'picks.folders' => ['nullable', 'array', 'max:500'],
        'picks.folders.*' => ['uuid'],
        'picks.suites' => ['nullable', 'array', 'max:200'],
        'picks.suites.*' => ['uuid'],
        'picks.filter' => ['nullable', 'array'],
        'picks.filter.*' => ['nullable', 'string', 'max:400000'],
        'picks.earlier' => ['nullable', 'array'],
        'picks.earlier.cycle' => ['nullable', 'string', 'max:40'],
        'picks.earlier.display_state' => ['nullable', 'array'],
        'picks.earlier.display_state.*' => ['in:pass,fail,blocked,not_applicable,not_run,in_progress,retest'],
        'picks.configurations' => ['nullable', 'array', 'max:300'],
        'picks.configurations.*' => ['uuid'],
        'picks.rows' => ['nullable', 'array'],
        'picks.rows.*' => ['array'],
        'picks.rows.*.*' => ['uuid'],
        'picks.usual' => ['nullable', 'boolean'],
    ];

    /**
     * @return array<string, mixed>
     */
    abstract public function rules(): array;

    /**
     * What came in and is known, lists in the order in which they came.
     *
     * @param  array<array-key, mixed>|int|string|null  $key
     * @param  mixed  $default
     */
    public function validated($key = null, $default = null): mixed
    {
        return data_get(self::inOrder(parent::validated()), $key, $default);
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
