module UseCases
  # Topics that members bring: taken, put off to the next meeting, or not taken, with a word back; and topics asked for.
  class BroughtTopics < Base
    ANSWERS = {"take" => "on", "put_off" => "on", "decline" => "declined"}.freeze

    # @param answer [String] take, put_off or decline
    # @param word [String, nil] to who brought it
    def answer(id:, answer:, word: nil)
      write do
        topic = find(Records::Topic.lock, id)
        next if topic.state != "brought_in" # answered before

        word = words(word, pointer: "/word", missing: ("Say why, to who brought it." if answer == "decline"))
        meeting = find(Records::Meeting, standing(topic))
        following = (answer == "put_off") ? next_after(meeting) : meeting
        topic.update!(
          state: ANSWERS.fetch(answer), word: word, meeting_id: following.id,
          presenter_id: topic.presenter_id || (topic.brought_by_id unless answer == "decline")
        )
        tell(topic, following, answer)
        Records::Change.note_all([meeting.id, following.id], now, :topics)
        Records::Change.note(meeting.id, now)
      end
      nil
    end

    # Who brings a topic is asked to write beforehand; it is taken as read then. Inside a transaction.
    def ask_in_writing(topic, meeting)
      person = Records::Person.find_by(id: topic.presenter_id || topic.brought_by_id)
      return if person.nil? || person.id == by || Loading::ClosedTopics.hides?(topic.id, person.id)

      Outbox.new(clock: @clock).put(
        reason: "in-writing:#{topic.id}:#{meeting.id}", series_id: meeting.series_id, to: person,
        reply_to: meeting.series.keeper.email,
        **Mailing::Letters.in_writing(
          title: meeting.series.title, topic: topic.title, at: Core::Words.moment(meeting.starts_at, person.zone),
          url: address(meeting)
        )
      )
    end

    # Everybody who may bring a topic is asked for one.
    # @param id [String] key of this asking; a repeated call changes nothing
    # @return [Integer] how many
    def ask_for_topics(id:, meeting_id:)
      asked = 0
      once(Records::Mail, id, within: meeting_id) { asked = ask_everybody(id, meeting_id) }
      asked
    end

    private

    def ask_everybody(id, meeting_id)
      meeting = find(Records::Meeting.includes(series: [:keeper, {members: :person}]), meeting_id)
      Core::Sheet::Lifecycle.refuse_frozen(meeting.state.to_sym)
      people = meeting.series.members.reject { |member| member.role == "informed" || member.person_id == by }
      people.map(&:person).count do |person|
        Outbox.new(clock: @clock).put(
          reason: "topics:#{id}:#{person.id}", series_id: meeting.series_id, to: person,
          reply_to: meeting.series.keeper.email, about: meeting.starts_at,
          **Mailing::Letters.topics_asked(
            title: meeting.series.title, keeper: meeting.series.keeper.name,
            at: Core::Words.moment(meeting.starts_at, person.zone), url: address(meeting)
          )
        )
      end
    end

    # Where a topic that was brought in waits: at its own meeting, or at the next one to come.
    def standing(topic) = Loading::Topics.standing(topic)

    def next_after(meeting)
      coming = Records::Meeting.where(series_id: meeting.series_id, state: "planned").where.not(id: meeting.id)
      coming.where("starts_at > ?", meeting.starts_at).in_order.first ||
        raise(Core::Conflict.new("There is no later meeting it could go to.", code: "no-meeting"))
    end

    def tell(topic, meeting, answer)
      person = topic.brought_by
      return if person.id == by

      Outbox.new(clock: @clock).put(
        reason: "topic:#{topic.id}:#{answer}", series_id: meeting.series_id, to: person,
        reply_to: meeting.series.keeper.email, about: meeting.starts_at,
        **Mailing::Letters.topic_answered(
          title: meeting.series.title, topic: topic.title, answer: answer, word: topic.word,
          at: Core::Words.moment(meeting.starts_at, person.zone), url: address(meeting)
        )
      )
    end

    def address(meeting) = "#{Settings.origin}/meetings/#{meeting.id}"
  end
end
