module UseCases
  # Making a series, changing it, and deleting one that nobody knows of.
  class Series < Base
    # @param id [String] key made by the browser; a repeated call changes nothing
    # @param members [Array<Hash>] person_id and role
    # @param moves [Array<Hash>] dates of the rule that are to be at another time: from and to on the wall
    # @param hold_id [String, nil] the hold this settles
    # @param place_anyway [Boolean] though the place has too few seats or is closed then
    # @param called_off [Array<Hash>] dates of the rule that do not take place: on (on the wall) and reason
    # @param added [Array<String>] dates besides those of the rule, on the wall
    # @param like_id [String, nil] a series whose standing agenda it begins with
    def create(
      id:, title:, run:, members:, keeper_id: nil, chair_id: nil, moves: [], hold_id: nil, groups: [], guests: [],
      also_place_ids: [], place_anyway: false, like_id: nil, called_off: [], added: [], **rest
    )
      wish = head(title: title, keeper_id: keeper_id || by, chair_id: chair_id || keeper_id || by, **rest)
      read, times = under("/run") { times(run) }
      once(Records::Series, id) do
        under("/run") { read.refuse_past(now) }
        series = Records::Series.create!(id: id, **wish, **times)
        lay_out(series, read, added)
        SeriesMembers.new(by: by, clock: @clock).set(series, members, groups: groups, guests: guests)
        Records::Event.note("made", "Made: #{read.sentence}", series_id: id, now: now, person_id: by)
        settle_holds(series, hold_id)
        moves.each_with_index { |move, i| move_date(series, move, "/moves/#{i}") }
        leave_out(series, called_off)
        hold_places(series, also_place_ids, place_anyway)
        StandingAgenda.new(by: by, clock: @clock).begin_like(series, like_id) if like_id
        Calls.new(by: by, clock: @clock).want(id)
      end
    end

    # Title, purpose, place and people. A change people must hear of is counted, so that it can be told.
    # @param version [Integer] the version seen
    def change(
      id:, version:, title:, members:, keeper_id: nil, chair_id: nil, groups: nil, guests: [], also_place_ids: nil,
      place_anyway: false, **rest
    )
      write do
        series = find(Records::Series.lock, id)
        people = {keeper_id: keeper_id || series.keeper_id, chair_id: chair_id || series.chair_id}
        series.assign_attributes(head(title: title, **people, **rest))
        changed_people = SeriesMembers.new(by: by, clock: @clock).set(series, members, groups: groups, guests: guests)
        other_equipment = also_place_ids && hold_also(series, also_place_ids)
        next unless series.changed? || changed_people || other_equipment
        raise Core::Stale.new(version: series.lock_version) if version != series.lock_version

        note_change(series, changed_people)
        tell_handing_over(series)
        save(series, other_equipment, place_anyway)
        Calls.new(by: by, clock: @clock).want(id)
      end
    end

    # A series nobody has been told of and nothing was done in can be deleted; any other is ended.
    def delete(id)
      write do
        series = find(Records::Series.lock, id)
        unless Loading::SeriesUse.deletable?(series)
          raise Core::Conflict.new(
            "People have been told of this series, or it holds something. End it instead.", code: "in-use"
          )
        end

        meetings = Records::Meeting.where(series_id: id)
        HANGING_ON.each { |records| records.where(meeting_id: meetings.select(:id)).delete_all }
        OF_SERIES.each { |records| records.where(series_id: id).delete_all }
        meetings.delete_all
        Records::Hold.where(series_id: id).update_all(series_id: nil)
        Records::Call.where(series_id: id).update_all(due_at: now) # whoever makes them is told that it is gone
        series.delete
      end
    end

    HANGING_ON = [
      Records::Answer, Records::RowSlot, Records::RowPicker, Records::Preparation, Records::PlaceBooking, Records::Topic
    ].freeze
    OF_SERIES = [
      Records::Event, Records::SeriesPlace, Records::SeriesMember, Records::SeriesGroup, Records::LinkSerial,
      Records::StandingTopic, Records::Deputy, Records::CallLink
    ].freeze

    private

    # When it meets. @return [Array(Core::Recurrence::Run, Hash)] as it was read, and as it is kept
    def times(run)
      read = Core::Recurrence::Run.of_wish(run)
      kept = Loading::RunHolidays.read(run[:holidays]).merge(
        time_zone: read.zone.name, local_start: read.start.to_time, length_min: read.length_min,
        rule: read.rule&.to_text(zone: read.zone),
        laid_out_until: (read.laid_out_until(now) if read.endless?)
      )
      [read, kept]
    end

    # Who keeps or chairs it from now on, and who did, hear of it; whoever does it themselves knows their new part, and
    # hears what they have given away.
    def tell_handing_over(series)
      {"keeper" => "keeper_id", "chair" => "chair_id"}.each do |part, column|
        before, after = series.changes[column]
        next unless after

        old, new = Records::Person.find(before), Records::Person.find(after)
        mail_part(series, part, new) unless new.id == by
        mail_part(series, part, old, to: new.name)
      end
    end

    def mail_part(series, part, person, to: nil)
      Outbox.new(clock: @clock).put(
        reason: "part:#{series.id}:#{part}:#{person.id}:#{now.to_f}", series_id: series.id, to: person,
        **Mailing::Letters.handed_over(
          title: series.title, part: part, by: Records::Person.where(id: by).pick(:name), to: to,
          url: "#{Settings.origin}/series/#{series.id}"
        )
      )
    end

    def save(series, other_equipment, place_anyway)
      other_place = series.place_id_changed? || other_equipment
      rebook = other_equipment || series.changed.intersect?(%w[place_id before_min after_min])
      save_with_sign_ups(series)
      check_place(series) if other_place && !place_anyway
      laying_out.book(series) if rebook
    end

    # Where more may sign up now, those who wait move up. Meetings are read anew, with the options as they still are.
    def save_with_sign_ups(series)
      more_room = series.changed.intersect?(%w[sign_up sign_up_limit])
      coming = more_room ? Records::Meeting.where(series_id: series.id).coming(now).includes(:series).in_order : []
      SignUps.new(by: by, clock: @clock).changing(*coming) { series.save! }
    end

    def laying_out = @laying_out ||= LayingOut.new(by: by, clock: @clock)

    LEFT_OUT = "It was called off before this series moved in here.".freeze

    # Called off from the start, with the reason that was given where it was kept before.
    def leave_out(series, dates)
      dates.group_by { |one| words(one[:reason]) || LEFT_OUT }.each do |reason, some|
        starts = some.map { |one| Core::WallTime.parse(one[:on], pointer: "/calledOff").to_time }
        series.meetings.where(original_start: starts).update_all(state: "called_off", called_off_reason: reason)
      end
    end

    # @param added [Array<String>] dates besides what the rule gives, on the wall
    def lay_out(series, read, added)
      laying_out.lay_out(series, read, Time.at(0))
      unless series.meetings.exists?(state: "planned")
        raise Core::Invalid.new("All of its dates are public holidays.", pointer: "/run/holidays/treatment")
      end

      added.uniq.each do |text|
        wall = Core::WallTime.parse(text, pointer: "/added")
        starts_at = series.zone.instant(wall)
        next if starts_at <= now || series.meetings.exists?(original_start: wall.to_time)

        series.meetings.create!(
          id: Records::Key.make(now), original_start: wall.to_time, starts_at: starts_at,
          ends_at: starts_at + series.length_min * 60, added: true
        )
      end
    end

    def hold_places(series, also_place_ids, place_anyway)
      hold_also(series, also_place_ids)
      check_place(series) unless place_anyway
      laying_out.book(series)
    end

    # Places besides its own. @return [Boolean] whether they are others now
    def hold_also(series, place_ids)
      wish = place_ids.uniq - [series.place_id]
      unless Records::Place.here.where(id: wish).count == wish.size
        raise Core::Invalid.new("A place chosen is not here any more.", pointer: "/alsoPlaceIds")
      end

      standing = Records::SeriesPlace.where(series_id: series.id).pluck(:place_id)
      return false if standing.sort == wish.sort

      Records::SeriesPlace.where(series_id: series.id, place_id: standing - wish).delete_all
      (wish - standing).each { |place_id| Records::SeriesPlace.create!(series_id: series.id, place_id: place_id) }
      series.series_places.reset
      true
    end

    # A hold becomes the meeting: the one named, or one's own at the same time, which would else keep the place from it.
    def settle_holds(series, hold_id)
      first = series.meetings.in_order.first
      mine = Records::Hold.where(kept_by_id: by, released_at: nil)
      mine
        .where(id: hold_id)
        .or(mine.where(place_id: series.place_id, starts_at: first&.starts_at))
        .update_all(released_at: now)
    end

    # Faults of something that stands under a name of its own in the wish.
    def under(pointer)
      yield
    rescue Core::Invalid => error
      faults = error.faults.map { |fault| fault.merge(pointer: "#{pointer}#{fault[:pointer]}") }
      raise Core::Invalid.new(error.message, faults: faults, code: error.code, **error.details.except(:errors))
    end

    CHANGED = {
      "title" => "title",
      "purpose" => "purpose",
      "place" => "place",
      "place_id" => "place",
      "keeper_id" => "keeper",
      "chair_id" => "chair",
      "quorum" => "quorum",
      "quorum_percent" => "quorum",
      "vote_rule" => "rule of votes",
      "mark" => "mark",
      "call_kind" => "call",
      "call_dial" => "call",
      "door_policy" => "door",
      "door_opens_min" => "door",
      "door_stays_min" => "door",
      "door_quiet" => "door",
      "door_presents" => "door",
      "door_records" => "door",
      "call_url" => "call",
      "call_passcode" => "call",
      "call_dial_in" => "call",
      "pass_on" => "options",
      "answers_asked" => "options",
      "sign_up" => "options",
      "sign_up_limit" => "options"
    }.freeze

    def note_change(series, people)
      words = "#{changed_words(series, people)} changed"
      Records::Event.note("changed", words, series_id: series.id, now: now, person_id: by)
      series.updated_at = now
    end

    def changed_words(series, people) =
      Core::Words
        .list([*series.changed.filter_map { |name| CHANGED[name] }.uniq, *("people" if people)])
        .then { |words| words.empty? ? "set-up times" : words }
        .capitalize

    def head(
      title:, keeper_id:, chair_id:, purpose: nil, place: nil, quorum: nil, quorum_percent: nil, vote_rule: "votes",
      place_id: nil, before_min: 0,
      after_min: 0, remind_min: 0, remind_papers: true, ask_owners_days: 2, wording: nil, call: nil,
      door: nil, mark: nil, options: nil
    )
      known = Records::Person.where(id: [keeper_id, chair_id]).pluck(:id)
      unless known.include?(keeper_id)
        raise Core::Invalid.new("Choose a keeper from the people here.", pointer: "/keeperId")
      end
      unless known.include?(chair_id)
        raise Core::Invalid.new("Choose a chair from the people here.", pointer: "/chairId")
      end

      {
        **CallWishes.read(call || {}), **(door ? door.to_h { |name, value| [:"door_#{name}", value] } : {}),
        **(options || {}),
        title: Core::Title.read(title, pointer: "/title", missing: "Give the series a title."),
        mark: mark,
        purpose: words(purpose),
        place: words(place),
        keeper_id: keeper_id,
        chair_id: chair_id,
        quorum: quorum,
        quorum_percent: (quorum_percent unless quorum),
        vote_rule: vote_rule,
        place_id: place_id,
        before_min: before_min,
        after_min: after_min,
        remind_min: remind_min,
        remind_papers: remind_papers,
        ask_owners_days: ask_owners_days,
        wording: words(wording)&.then { |text| Core::Invitation::Wording.check(text, pointer: "/wording") }
      }
    end

    # One date of the rule at another time, from the start.
    def move_date(series, move, pointer)
      from, to =
        Core::WallTime.parse(move[:from], pointer: "#{pointer}/from"),
        Core::WallTime.parse(move[:to], pointer: "#{pointer}/to")
      meeting = series.meetings.find_by(original_start: from.to_time) or
        raise Core::Invalid.new("The rule gives no meeting at that time.", pointer: "#{pointer}/from")
      starts_at = series.zone.instant(to)
      Core::Recurrence::Run.refuse_moment(starts_at, now, series.zone, "#{pointer}/to")
      moved_at = now unless starts_at == meeting.starts_at
      ends_at = starts_at + (move[:length_min] || series.length_min) * 60
      meeting.update!(starts_at: starts_at, ends_at: ends_at, moved_at: moved_at)
    end

    def check_place(series) = PlaceBookings.new(by: by, clock: @clock).check_fit(
      laying_out.to_book(series), people: series.members.reload.count { |member| member.role != "informed" }
    )
  end
end
