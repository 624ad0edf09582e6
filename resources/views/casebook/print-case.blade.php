<article>
<h2><span class="key">{{ $case->key }}</span> {{ $case->text->title }}</h2>
<p class="facts">{{ implode(' · ', $facts) }}</p>
@foreach (['Objective' => $case->text->objective, 'Preconditions' => $case->text->preconditions] as $name => $text)
@if ('' !== $text)
<h3>{{ $name }}</h3>
{!! $markdown($text) !!}
@endif
@endforeach
@if ([] !== $case->text->steps)
<table>
<thead><tr><th></th><th>Action</th><th>Data</th><th>Expected</th></tr></thead>
<tbody>
@foreach ($case->text->steps as $step)
<tr>
<td>{{ $loop->iteration }}</td>
@if (null !== $step->routine)
<td>Routine: {{ $case->routines[$step->routine] ?? '' }}</td>
<td class="data">@foreach ($step->values as $name => $value){{ $name }} = {{ $value }}{{ $loop->last ? '' : "\n" }}@endforeach</td>
<td></td>
@else
<td>{!! $markdown($step->action) !!}</td>
<td class="data">{{ $step->data }}</td>
<td>{!! $markdown($step->expected) !!}</td>
@endif
</tr>
@foreach ($step->files as $file)
<tr>
<td></td>
@if (null !== ($source = $picture($file['sha256'])))
<td colspan="3"><img alt="{{ $file['name'] }}" src="{{ $source }}"></td>
@else
<td colspan="3">{{ $file['name'] }}</td>
@endif
</tr>
@endforeach
@endforeach
</tbody>
</table>
@endif
@if ('' !== $case->text->postconditions)
<h3>Postconditions</h3>
{!! $markdown($case->text->postconditions) !!}
@endif
</article>
