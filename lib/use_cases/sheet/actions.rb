module UseCases
  # Actions wherever they show: listed, ticked off and back, changed, reviewed in a meeting.
  class Actions < Base
    CLOSED = %w[done dropped].freeze

    # Done, dropped with a reason, or open again. Repeating is harmless.
    # @param meeting_id [String, nil] the meeting it is closed in
    def move(id:, state:, reason: nil, meeting_id: nil)
      write do
        action = find(Records::ActionItem.lock, id)
        next if action.state == state
        raise handed_over if action.state == "handed_over"

        reason = words(reason, pointer: "/reason", missing: ("Say why it is dropped." if state == "dropped"))
        closing = state != "open"
        action.update!(
          state: state, reason: closing ? reason : nil, closed_at: (now if closing),
          closed_at_meeting_id: (meeting_id if closing)
        )
        keep(action, (state == "open") ? "reopened" : state, reason, meeting_id)
        note_sheets(action)
      end
    end

    # @param version [Integer] the version seen
    def change(id:, version:, text:, owner_ids:, due_on: nil)
      write do
        action = find(Records::ActionItem, id)
        changed = update(
          action, version, text: words(text, pointer: "/text", missing: "Say what is to be done."), due_on: due_on
        )
        next unless set_owners(action, owner_ids) || changed

        action.touch unless changed # other owners are another version too
        keep(action, "changed", nil, nil)
        note_sheets(action)
      end
    end

    # What several own together becomes one action for each of them, as old as it was. Repeating is harmless.
    def one_each(id)
      write do
        action = find(Records::ActionItem.lock.includes(owners: :person), id)
        raise handed_over if action.state == "handed_over"

        first, *others = action.owners.sort_by { |owner| [owner.person.name, owner.person_id] }.map(&:person_id)
        next if others.empty?

        others.each { |person_id| copy_for(action, person_id) }
        set_owners(action, [first])
        action.touch
        keep(action, "changed", "one each", nil)
        note_sheets(action)
      end
      nil
    end

    # A word on how it goes, or that it will not be done by then. It stands under the action from then on.
    # @param id [String] key made by the browser; a repeated call changes nothing
    def note(id:, action_id:, text: nil, delayed: false)
      once(Records::ActionChange, id, within: action_id) do
        action = find(Records::ActionItem.lock, action_id)
        word = words(text, pointer: "/text", missing: ("Write how it goes." unless delayed))
        keep(action, delayed ? "delayed" : "noted", word, nil, id: id)
        note_sheets(action)
      end
      nil
    end

    # Actions that no meeting raised.
    # @param actions [Array<Hash>] id, made by the browser, text, owner_ids and due_on
    def add(series_id:, actions:)
      write do
        series = find(Records::Series, series_id)
        actions.each_with_index { |wish, i| add_one(series, i, **wish) }
        Records::Change.note_left_over(series_id, now)
      end
      nil
    end

    # The word of one meeting on a left-over action.
    # @param verdict [String] done, keep or drop
    # @param word [String, nil] a word on it; the reason when dropped
    def review(meeting_id:, action_id:, verdict:, word: nil)
      write do
        action = reviewable(meeting_id, action_id)
        review = Records::ActionReview.find_or_initialize_by(meeting_id: meeting_id, action_item_id: action_id)
        word = words(word, pointer: "/word", missing: ("Say why it is dropped." if verdict == "drop"))
        next if review.persisted? && [review.verdict, review.word] == [verdict, word]

        review.update!(verdict: verdict, word: word, person_id: by, reviewed_at: now)
        move(
          id: action.id, state: Core::CarryForward::Ledger::AFTER_REVIEW.fetch(verdict.to_sym).to_s, reason: word,
          meeting_id: meeting_id
        )
        Records::Change.note(meeting_id, now, :left_over)
      end
      nil
    end

    # Several smaller ones instead, raised at this meeting; each is read as a line is, and has the owners and the date
    # of the whole where it names none. The whole is dropped.
    # @param parts [Array<Hash>] id and text, made by the browser; a repeated call changes nothing
    def split(meeting_id:, action_id:, parts:)
      write do
        action = reviewable(meeting_id, action_id)
        next if split_before?(action, parts)

        action.touch # whoever comes at the same moment waits, and finds it split
        texts = parts.map { |part| words(part[:text], pointer: "/parts", missing: "Each part needs some words.") }
        meeting = find(Records::Meeting, meeting_id)
        reader = Loading::LineReading.new(meeting, topic_id: action.topic_id, by: by)
        made = parts.zip(texts).map { |part, text| raise_part(action, meeting_id, part[:id], reader.read(text)) }
        parts.each { |part| note_made(Records::ActionItem, part[:id], action.id) }
        review(
          meeting_id: meeting_id, action_id: action_id, verdict: "drop",
          word: Core::Words.shorten("Split into: #{made.map(&:text).join("; ")}", 500)
        )
      end
      nil
    end

    # As if the meeting had not spoken of it: the parts it was split into go, too.
    def take_back_review(meeting_id:, action_id:)
      write do
        action = reviewable(meeting_id, action_id)
        parts = parts_at(meeting_id, action_id).each(&:destroy!)
        Records::MadeKey.where(id: parts.map(&:id)).delete_all # they may be made again under their keys
        Records::ActionReview.where(meeting_id: meeting_id, action_item_id: action_id).delete_all
        move(id: action_id, state: "open") if action.closed_at_meeting_id == meeting_id
        Records::Change.note(meeting_id, now, :left_over)
      end
      nil
    end

    # @return [Boolean] whether owners changed. Inside a transaction.
    def set_owners(action, ids)
      ids = ids.uniq
      known = Records::SeriesMember.where(series_id: action.series_id, person_id: ids).pluck(:person_id) +
        Records::Substitute.of_series(action.series_id).where(person_id: ids).pluck(:person_id)
      unless (ids - known).empty?
        raise Core::Invalid.new("Choose owners from the people of the series.", pointer: "/ownerIds")
      end

      Closing.new(by: by, clock: @clock).check_owners(action, ids)
      standing = action.owners.reload.map(&:person_id)
      action.owners.where(person_id: standing - ids).delete_all
      (ids - standing).each do |person_id|
        Records::ActionOwner.create!(action_item_id: action.id, person_id: person_id)
      end
      standing.sort != ids.sort
    end

    private

    def copy_for(action, person_id)
      same = action.attributes.slice("series_id", "topic_id", "text", "due_on", "raised_at", "raised_at_meeting_id")
      copy = Records::ActionItem.create!(id: Records::Key.make(now), **same)
      Records::ActionOwner.create!(action_item_id: copy.id, person_id: person_id)
      keep(copy, "raised", "one each", nil)
    end

    def handed_over =
      Core::Conflict.new("It was handed over to another series. Give it back from there.", code: "state")

    def add_one(series, i, id:, text:, owner_ids: [], due_on: nil)
      once(Records::ActionItem, id, within: series.id) do
        action = Records::ActionItem.create!(
          id: id, series_id: series.id, due_on: due_on, raised_at: now,
          text: words(text, pointer: "/actions/#{i}/text", missing: "Say what is to be done.")
        )
        set_owners(action, owner_ids)
        keep(action, "raised", nil, nil)
      end
    end

    # @raise [Core::Conflict] when a key is somebody else's, or it was split otherwise
    def split_before?(action, parts)
      ids = parts.map { |part| part[:id] }
      before = ids.map { |id| made?(Records::ActionItem, id, action.id) }
      return true if before.all?
      raise key_taken if before.any? || ids.uniq.size < ids.size || Records::ActionItem.exists?(id: ids)
      return false if action.state == "open" || Records::ActionItem.where(split_from_id: action.id).none?

      raise Core::Conflict.new("It has been split already. Take that back first.", code: "state")
    end

    # Those nothing has been done to since.
    def parts_at(meeting_id, action_id)
      parts = Records::ActionItem.where(split_from_id: action_id, raised_at_meeting_id: meeting_id, state: "open")
      parts.reject { |part| part.reviews.exists? }
    end

    def raise_part(whole, meeting_id, id, reading)
      meeting = find(Records::Meeting, meeting_id)
      part = Records::ActionItem.create!(
        id: id, series_id: whole.series_id, raised_at_meeting_id: meeting_id, split_from_id: whole.id,
        topic_id: whole.topic_id,
        text: reading[:text], due_on: reading[:due_on] || whole.due_on, raised_at: [meeting.starts_at, now].min
      )
      owners = reading[:owners].map { |owner| owner[:id] }
      set_owners(part, owners.empty? ? whole.owners.map(&:person_id) : owners)
      keep(part, "raised", nil, meeting_id)
      part
    end

    def reviewable(meeting_id, action_id)
      meeting = find(Records::Meeting, meeting_id)
      Core::Sheet::Lifecycle.refuse_frozen(meeting.state.to_sym)
      find(Records::ActionItem.where(series_id: meeting.series_id).lock, action_id)
    end

    def keep(action, kind, word, meeting_id, id: Records::Key.make)
      Records::ActionChange.create!(
        id: id, action_item_id: action.id, person_id: by, meeting_id: meeting_id, change_kind: kind, word: word,
        changed_at: now
      )
    end

    # Sheets that show the action and may be open on somebody's screen.
    def note_sheets(action)
      Records::Change.note_left_over(action.series_id, now)
      Records::Change.note(action.raised_at_meeting_id, now, :line, action.line_id) if action.line_id
    end
  end
end
