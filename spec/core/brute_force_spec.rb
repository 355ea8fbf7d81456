require "tzinfo"

# The search against the plainest reading of its rules, minute by minute and start by start, with zones read by TZInfo
# itself. 500 generated cases from a fixed seed: up to five people in odd zones, around clock changes too.
RSpec.describe Core::CommonTime::Search do
  zones = %w[Europe/Oslo Europe/Lisbon America/Halifax Asia/Kolkata Australia/Lord_Howe America/St_Johns]
  windows = [
    Time.utc(2026, 11, 30), Time.utc(2027, 3, 13), Time.utc(2027, 3, 27), Time.utc(2026, 10, 24), Time.utc(2027, 4, 3)
  ].map { |time| time.to_i / 60 }
  day_codes = Core::FreeBusy::WorkingHours::DAYS

  kinds = {
    case: Struct.new(:from, :to, :length_min, :step_min, :people),
    person: Struct.new(:role, :known, :zone, :week, :busy, :tentative)
  }

  def case_of(random, zones, windows, kinds)
    from = windows.sample(random: random) + random.rand(600)
    to = from + 600 + random.rand(1_400)
    people = Array.new(1 + random.rand(5)) do
      spans = -> do
        Array.new(random.rand(4)) do
          random.rand(from - 60..to).then { |start| [start, start + 1 + random.rand(180)] }
        end
      end
      kinds[:person].new(
        (random.rand < 0.7) ? :required : :optional, random.rand < 0.9, zones.sample(random: random), week(random),
        spans.call, (random.rand < 0.3) ? spans.call : []
      )
    end
    kinds[:case].new(from, to, 5 + random.rand(90), [5, 10, 15, 30, 60].sample(random: random), people)
  end

  def week(random)
    return if random.rand < 0.2

    %w[mo tu we th fr sa su].to_h do |day|
      start = random.rand(0..22) * 60 + [0, 30].sample(random: random)
      length = 60 + random.rand(900)
      [day, (random.rand < 0.85) ? [[clock(start), clock((start + length) % 1_440)]] : []]
    end
  end

  def clock(minute) = format("%02d:%02d", *minute.divmod(60))

  # Whether somebody works in a minute, by the clock on their wall alone.
  def working?(somebody, minute, day_codes)
    return true unless somebody.week

    wall =
      (@walls[[somebody.zone, minute]] ||= TZInfo::Timezone.get(somebody.zone).utc_to_local(Time.at(minute * 60).utc))
    at = wall.hour * 60 + wall.min
    today, yesterday = day_codes[wall.to_date.cwday - 1], day_codes[wall.to_date.cwday - 2]
    inside = ->(range, shift) do
      from, to = range.map { |text| text[0, 2].to_i * 60 + text[3, 2].to_i }
      to += 1_440 if to <= from
      at + shift >= from && at + shift < to
    end
    somebody.week[today].any? { |range| inside.call(range, 0) } ||
      somebody.week[yesterday].any? { |range| inside.call(range, 1_440) }
  end

  def in_any?(spans, minute) = spans.any? { |from, to| minute >= from && minute < to }

  def brute_force(one, day_codes)
    states = one.people.map do |somebody|
      (one.from...one.to).map do |minute|
        next :away if in_any?(somebody.busy, minute) || !working?(somebody, minute, day_codes)

        in_any?(somebody.tentative, minute) ? :tentative : :free
      end
    end
    first = (one.from.to_f / one.step_min).ceil * one.step_min
    (first..one.to - one.length_min)
      .step(one.step_min)
      .map do |start|
        counts = {missing: 0, tentative: 0, unknown: 0, free: 0}
        one
          .people
          .zip(states) do |somebody, minutes|
            seen = minutes[start - one.from, one.length_min]
            if somebody.role == :required
              if seen.include?(:away)
                counts[:missing] += 1
              elsif !somebody.known
                counts[:unknown] += 1
              elsif seen.include?(:tentative)
                counts[:tentative] += 1
              end
            elsif somebody.known && seen.all?(:free)
              counts[:free] += 1
            end
          end
        [start, *counts.values]
      end
  end

  def searched(one)
    people = one.people.each_with_index.map do |somebody, i|
      hours = somebody.week && Core::FreeBusy::WorkingHours.read(somebody.week, Core::Zone[somebody.zone])
      outside = hours ? hours.outside(one.from, one.to) : []
      Core::CommonTime::Person.new(
        id: i, role: somebody.role, known: somebody.known, busy: Core::Spans.normal(somebody.busy.flatten),
        tentative: Core::Spans.normal(somebody.tentative.flatten), outside: outside, beyond: outside, weight: 1
      )
    end
    search = described_class.new(
      Core::CommonTime::Request.new(
        from: one.from, to: one.to, length_min: one.length_min, grid: Core::CommonTime::Grid.utc(one.step_min),
        allowed: nil, gap_min: 0, before_min: 0, after_min: 0
      ),
      people
    )
    (0...search.size).map do |index|
      [
        search.start_at(index), search.missing(index), search.tentative(index), search.unknown(index),
        search.optional_free(index)
      ]
    end
  end

  it "agrees with brute force on 500 cases, start by start" do
    @walls = {}
    random = Random.new(20_261_124)
    differences =
      Array
        .new(500) { case_of(random, zones, windows, kinds) }
        .reject { |one| searched(one) == brute_force(one, day_codes) }
    expect(differences).to be_empty
  end
end
