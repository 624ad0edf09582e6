<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Requests;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Sessions\Http\ObservedPage;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\Core\Sessions\ObservedAct;
use LucidStep\Core\Sessions\ObserverBounds;
use OpenApi\Attributes as OA;

/**
 * What was done on a page that is observed, in the order in which it was done.
 */
#[
    OA\Schema(
        required: ['code', 'sent_at', 'acts'],
        properties: [
            new OA\Property(property: 'code', type: 'string', description: 'Of the session'),
            new OA\Property(property: 'sent_at', type: 'string', description: 'When it was sent, by the clock of the page'),
            new OA\Property(property: 'lost', type: 'integer', description: 'Acts that the page could not keep'),
            new OA\Property(
                property: 'acts',
                type: 'array',
                items: new OA\Items(
                    type: 'object',
                    required: ['id', 'kind', 'at', 'n', 'tab', 'page'],
                    properties: [
                        new OA\Property(property: 'id', type: 'string', format: 'uuid', description: 'As the page made it'),
                        new OA\Property(
                            property: 'kind',
                            type: 'string',
                            enum: ['visit', 'press', 'type', 'choose', 'tick', 'submit', 'trouble'],
                        ),
                        new OA\Property(property: 'at', type: 'integer', description: 'By its clock, in ms since 1970'),
                        new OA\Property(property: 'n', type: 'integer', description: 'Which of its acts it was'),
                        new OA\Property(property: 'tab', type: 'string', description: 'A name for the tab'),
                        new OA\Property(property: 'page', type: 'string', description: 'Path, query and what is behind the #'),
                        new OA\Property(
                            property: 'words',
                            type: 'string',
                            nullable: true,
                            description: 'The title of a page, or what the trouble is',
                        ),
                        new OA\Property(
                            property: 'reached',
                            type: 'string',
                            nullable: true,
                            description: '`typed`, `press`, `submit`, `redirect`, `reload`, `back`, `pressed_tab` or `hand_made_tab`',
                        ),
                        new OA\Property(
                            property: 'opener',
                            type: 'string',
                            nullable: true,
                            description: 'From which tab a press opened this one',
                        ),
                        new OA\Property(property: 'control', type: 'string', nullable: true, description: 'What it is called'),
                        new OA\Property(
                            property: 'value',
                            type: 'string',
                            nullable: true,
                            description: 'What was typed or chosen, empty: a tick was taken away; null: it is never read',
                        ),
                    ],
                ),
            ),
        ],
    ),
]
final class ObservationsRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'code' => ['required', 'string', 'max:40'],
            'sent_at' => ['required', 'date'],
            'lost' => ['integer', 'min:0', 'max:1000000'],
            'acts' => ['present', 'array', 'max:' . ObserverBounds::AT_ONCE],
            'acts.*' => ['array'],
            'acts.*.id' => ['required', 'uuid'],
            'acts.*.kind' => ['required', 'in:visit,press,type,choose,tick,submit,trouble'],
            'acts.*.at' => ['required', 'integer', 'min:0', 'max:9007199254740991'],
            'acts.*.n' => ['required', 'integer', 'min:0', 'max:9007199254740991'],
            'acts.*.tab' => ['required', 'string', 'max:64'],
            'acts.*.page' => ['required', 'string', 'max:4000'],
            'acts.*.words' => ['nullable', 'string', 'max:4000'],
            'acts.*.reached' => ['nullable', 'string', 'max:20'],
            'acts.*.opener' => ['nullable', 'string', 'max:64'],
            'acts.*.control' => ['nullable', 'string', 'max:4000'],
            'acts.*.value' => ['nullable', 'string', 'max:4000'],
        ];
    }

    protected function projectId(): string
    {
        return ObservedPage::session($this)->project_id;
    }

    /**
     * @return list<ObservedAct> by the server's clock: what the clock of the page is off by is taken off
     */
    public function acts(): array
    {
        $sent = Carbon::parse($this->string('sent_at')->toString())->utc();
        $true = (new DeviceStamp($sent, null, $sent))->trueTime(Carbon::now()) ?? $sent;
        $ahead = (int) round($true->diffInMilliseconds($sent));

        return array_values(
            array_map(static fn(array $act): ObservedAct => ObservedAct::of($act, $ahead), (array) $this->validated('acts')),
        );
    }
}
