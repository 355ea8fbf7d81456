module Loading
  # When people and places are taken, as Core::CommonTime takes it: a fixed number of queries for any number of people.
  class Availability
    Taken = Struct.new(:busy, :tentative)
    KINDS = Records::BusySpan::KINDS.invert.freeze
    # From and to in minutes, whether they said they may come, and whose meeting it is.
    TAKEN = <<~SQL.freeze
      floor(unix_timestamp(meetings.starts_at) / 60), ceil(unix_timestamp(meetings.ends_at) / 60),
      coalesce(answers.answer, 'none') = 'tentative', meetings.series_id
    SQL
    TAKES_TIME = <<~SQL.freeze
      meetings.state <> 'called_off' and coalesce(answers.answer, 'none') <> 'declined'
      and meetings.starts_at < ? and meetings.ends_at > ? and meetings.id <> ? and meetings.series_id <> ?
    SQL
    # Own meetings count without anybody doing anything; informed people are not waited for, a declined one does not
    # block.
    OWN = <<~SQL.freeze
      select series_members.person_id, #{TAKEN}
      from meetings
      join series_members on series_members.series_id = meetings.series_id and series_members.person_id in (?)
        and series_members.role <> 'informed'
      left join answers on answers.meeting_id = meetings.id and answers.person_id = series_members.person_id
      where #{TAKES_TIME} order by meetings.starts_at
    SQL
    # Who comes to a meeting instead of somebody else is taken as well.
    SUBSTITUTES = <<~SQL.freeze
      select substitutes.person_id, #{TAKEN}
      from substitutes
      join meetings on meetings.id = substitutes.meeting_id
      left join answers on answers.meeting_id = meetings.id and answers.person_id = substitutes.person_id
      where substitutes.person_id in (?) and #{TAKES_TIME}
    SQL

    # @param people [Hash{String => Symbol}] role by person
    # @param from, to [Time]
    # @param guests [Array<Hash>] id, name and role of those without a calendar here, whose `zone` is that of who
    #   searches
    # @param except_series, except_meeting, except_hold [String, nil] whose own times do not count: they are what is
    #   looked for; of holds, several may be named
    # @param except_calendars [Array<String>] that are not looked through
    def initialize(
      people:, from:, to:, now:, guests: [], zone: nil, except_series: nil, except_meeting: nil, except_hold: nil,
      except_calendars: []
    )
      @roles = people
      @guests = guests
      @zone = zone
      @from = Core::Spans.minute(from)
      @to = Core::Spans.minute_after(to)
      @now = now
      @except_series, @except_meeting, @except_hold = except_series, except_meeting, except_hold
      @except_calendars = except_calendars
    end

    # @param stretch_min [Integer, nil] hours wider by so much; nil: any time of the day
    # @param carried [Hash{String => Integer}] minutes outside their hours at the last meetings, by person
    # @return [Array<Core::CommonTime::Person>] in the order given
    def people(stretch_min: 0, carried: {}) = people_of(@roles, @except_series, stretch_min, carried) + guests

    # Some of the people, as one of several series sees them: its own meetings do not count.
    # @param roles [Hash{String => Symbol}] of people known here
    # @return [Array<Core::CommonTime::Person>]
    def people_of(roles, except_series, stretch_min = 0, carried = {})
      taken = taken(except_series)
      roles.map do |id, role|
        person = records.fetch(id)
        beyond, outside = hours(person, stretch_min)
        Core::CommonTime::Person.new(
          id: id, role: role, known: known.include?(id), busy: Core::Spans.join(taken[id].busy, days_off(person)),
          tentative: taken[id].tentative, outside: outside, beyond: beyond, weight: carried[id].to_i.positive? ? 2 : 1
        )
      end
    end

    def names = records.transform_values(&:name).merge(@guests.to_h { |guest| [guest[:id], guest[:name]] })

    def zones =
      @zones ||=
        records
          .transform_values { |person| Core::Zone[person.time_zone] }
          .merge(@guests.to_h { |guest| [guest[:id], @zone] })

    # @param places [Array<Records::Place>]
    # @return [Array<Core::CommonTime::Place>]
    def places(places)
      spans = spans_of(places.map(&:id))
      bookings = bookings_of(places.map(&:id))
      places.map do |place|
        closed = (
          if place.opening_hours
            Core::FreeBusy::WorkingHours.read(place.opening_hours, place.zone).outside(@from, @to)
          else
            []
          end
        )
        Core::CommonTime::Place.new(
          id: place.id,
          taken:
            Core::Spans.normal(
              closed + (spans[place.id]&.busy || []) + (spans[place.id]&.tentative || []) + (bookings[place.id] || [])
            )
        )
      end
    end

    # What takes somebody's time, for their own eyes: from, to, kind, title.
    def self.told(person_id, from, to)
      spans =
        Records::BusySpan
          .where(owner_id: person_id)
          .touching(Core::Spans.minute(from), Core::Spans.minute_after(to))
          .order(:starts_min)
          .limit(500)
      spans.map do |span|
        {
          starts_at: Time.at(span.starts_min * 60).utc, ends_at: Time.at(span.ends_min * 60).utc,
          kind: KINDS.fetch(span.kind), title: span.title
        }
      end
    end

    # Meetings kept here that somebody comes to. @return [Array<Array(Time, Time, Boolean, String)>] from, to, whether
    #   they may come, and the title
    def self.meetings_of(person_id, from, to)
      rows = [OWN, SUBSTITUTES].flat_map { |sql| Records::Base.rows(sql, [person_id], to, from, "", "") }
      titles = Records::Series.where(id: rows.map(&:last)).pluck(:id, :title).to_h
      rows.map do |_, starts, ends, tentative, series_id|
        [Time.at(starts.to_i * 60).utc, Time.at(ends.to_i * 60).utc, tentative == 1, titles[series_id]]
      end
    end

    # The spans that touch [from, to), in minutes. Owners are numbered beside the query: a key of 36 characters in each
    # of a hundred thousand rows would take longer to read than the rest.
    # @param except [Array<String>] keys of calendars
    # @return [Array<Array(Integer, Integer, Integer, Integer)>] index of the owner in the list, from, to, kind
    def self.span_rows(owner_ids, from, to, except: [])
      return [] if owner_ids.empty?

      numbered =
        owner_ids
          .each_with_index
          .map do |id, number|
            Records::Base.sanitize_sql(
              ["select convert(? using ascii) collate ascii_bin as id, #{number} as number", id]
            )
          end
          .join(" union all ")
      left_out = except.any? ? Records::Base.sanitize_sql(["and calendar_id not in (?)", except]) : ""
      sql = Records::Base.sanitize_sql([<<~SQL, to, from])
        select owners.number, starts_min, ends_min, kind from (#{numbered}) owners
        straight_join busy_spans force index (busy_spans_of_owner) on busy_spans.owner_id = owners.id
        where starts_min < ? and ends_min > ? #{left_out}
      SQL
      Records::Base.rows(sql)
    end

    private

    def guests
      @guests.map do |guest|
        Core::CommonTime::Person.new(
          id: guest[:id], role: guest[:role].to_sym, known: false, busy: [], tentative: [], outside: [], beyond: [],
          weight: 1
        )
      end
    end

    def records
      @records ||=
        Records::Person
          .where(id: @roles.keys)
          .includes(:days_off)
          .to_h { |person| [person.id, person] }
          .tap do |found|
            missing = @roles.keys - found.keys
            if missing.any?
              raise Core::Invalid.new("Somebody chosen is not among the people here any more.", pointer: "/people")
            end
          end
    end

    # Somebody is known who has a calendar that was read at least once (rules.md 3: no calendar known is not free).
    def known = @known ||= Records::Calendar.telling.where(person_id: @roles.keys).distinct.pluck(:person_id).to_set

    def taken(except_series)
      (@taken ||= {})[except_series] ||= begin
        found = calendar_spans.transform_values { |times| Taken.new(times.busy.dup, times.tentative.dup) }
        rows = meeting_rows.reject { |*, series_id| series_id == except_series } + hold_rows
        rows.each { |id, from, to, tentative| (tentative ? found[id].tentative : found[id].busy) << from << to }
        found.each_value { |times| times.each_pair { |kind, spans| times[kind] = Core::Spans.normal(spans) } }
        found
      end
    end

    def calendar_spans = @calendar_spans ||= spans_of(@roles.keys)

    # The one big reading, without a record for each row.
    def spans_of(owner_ids)
      found = owner_ids.map { Taken.new([], []) }
      Availability.span_rows(owner_ids, @from, @to, except: @except_calendars).each do |number, from, to, kind|
        ((kind == 1) ? found[number].tentative : found[number].busy) << from << to
      end
      owner_ids.zip(found).to_h
    end

    def meeting_rows
      given = [time(@to), time(@from), @except_meeting || "", @except_series || ""]
      @meeting_rows ||= whole(rows(OWN, @roles.keys, *given) + rows(SUBSTITUTES, @roles.keys, *given))
    end

    def hold_rows = @hold_rows ||= standing_holds

    def standing_holds
      holds =
        Records::Hold
          .standing(@now)
          .joins(:people)
          .where(hold_people: {person_id: @roles.keys})
          .where("starts_at < ? and ends_at > ?", time(@to), time(@from))
          .where.not(id: @except_hold || "")
      holds
        .pluck("hold_people.person_id", :starts_at, :ends_at)
        .map { |id, from, to| [id, Core::Spans.minute(from), Core::Spans.minute_after(to), true] }
    end

    def bookings_of(place_ids)
      bookings =
        Records::PlaceBooking
          .where(place_id: place_ids)
          .where("starts_at < ? and ends_at > ?", time(@to), time(@from))
          .where.not(meeting_id: @except_meeting || "")
      if @except_series
        bookings = bookings.where.not(
          meeting_id: Records::Meeting.where(series_id: @except_series).select(:id)
        )
      end
      holds =
        Records::Hold
          .standing(@now)
          .where(place_id: place_ids)
          .where.not(id: @except_hold || "")
          .pluck(:place_id, :starts_at, :ends_at, :before_min, :after_min)
          .map { |id, from, to, before, after| [id, from - before * 60, to + after * 60] }
      (bookings.pluck(:place_id, :starts_at, :ends_at) + holds)
        .group_by(&:first)
        .transform_values do |rows|
          rows.flat_map { |_, from, to| [Core::Spans.minute(from), Core::Spans.minute_after(to)] }
        end
    end

    # People with the same hours in the same zone share one computation.
    def hours(person, stretch_min)
      @hours ||= {}
      @hours[[person.time_zone, person.working_hours, stretch_min]] ||= begin
        hours = hours_of(person)
        [hours.outside(@from, @to), stretch_min ? hours.outside(@from, @to, stretch_min: stretch_min) : []]
      end
    end

    def days_off(person) = hours_of(person).off(@from, @to)

    def hours_of(person)
      @hours_of ||= {}
      @hours_of[person.id] ||= Hours.of(person, time(@from), time(@to))
    end

    def whole(rows)
      rows.map { |id, from, to, tentative, series_id| [id, from.to_i, to.to_i, tentative == 1, series_id] }
    end

    def time(minute) = Time.at(minute * 60).utc

    def rows(...) = Records::Base.rows(...)
  end
end
