module Loading
  # The agenda of a meeting, with what is left over, as mails say it.
  class Agenda
    # @param meeting [Records::Meeting] with its place and series
    def initialize(meeting)
      @meeting = meeting
      @series = meeting.series
      @ledger = Ledgers.of([@series.id])[@series.id]
    end

    # @return [Agenda] @raise [Core::NotFound]
    def self.of(meeting_id)
      found = Records::Meeting.includes(:held_place, series: :held_place).find_by(id: meeting_id)
      new(found || raise(Core::NotFound))
    end

    # @return [Hash, nil] title, at, location, topics, left_over and closed, the topics not everybody reads; nil while
    #   nothing is planned
    def to_h
      return if topics.empty? && left_over.empty?

      {
        title: @series.title, at: at, location: @meeting.location, topics: topics, left_over: left_over, closed: closed
      }
    end

    # As those are told who do not read closed topics.
    # @param agenda [Hash, nil] as to_h gives it, or gave it once
    def self.for_others(agenda) = closed_in(agenda).agenda(agenda)

    # @return [Core::Sheet::ClosedTopics]
    def self.closed_in(agenda) = Core::Sheet::ClosedTopics.new(agenda.to_h[:closed] || [])

    # @return [Array<Hash>] id, number, title, length_min, purpose, presenter, text and in_writing
    def topics
      @topics ||= begin
        ids = @ledger.topics_at(@meeting.id).map(&:id)
        records = Records::Topic.where(id: ids).sort_by { |topic| ids.index(topic.id) }
        names = Records::Person.where(id: records.map(&:presenter_id)).pluck(:id, :name).to_h
        numbers = Core::Sheet::Numbering.of(records.map(&:sub))
        records.zip(numbers).map { |topic, number| topic_row(topic, number, names) }
      end
    end

    # What is kept of an agenda that is sent, so that a change is known.
    # @param topics [Array<Records::Topic>] in order
    # @return [Array<Hash>] plain
    def self.kept(topics)
      names = Records::Person.where(id: topics.map(&:presenter_id)).pluck(:id, :name).to_h
      topics.map do |topic|
        {"id" => topic.id, "title" => topic.title, "length_min" => topic.length_min,
         "presenter" => names[topic.presenter_id], "closed" => topic.closed}
      end
    end

    private

    def closed = Records::Topic.where(series_id: @series.id, closed: true).ids

    def at
      from, to = [@meeting.starts_at, @meeting.ends_at].map { |time| @series.zone.wall(time) }
      "#{Core::Words.at(from)}–#{Core::Words.clock(to)} #{@series.zone.city} time"
    end

    def topic_row(topic, number, names)
      {
        id: topic.id, number: number, title: topic.title, length_min: topic.length_min, purpose: topic.purpose,
        presenter: names[topic.presenter_id], text: topic.text, in_writing: topic.in_writing, closed: topic.closed
      }
    end

    def left_over
      @left_over ||= begin
        actions = @ledger.left_over_actions(@meeting.id).select { |action| action.state == :open }
        records = Records::ActionItem.where(id: actions.map(&:id)).includes(owners: :person).index_by(&:id)
        actions.map { |action| row(records.fetch(action.id), @ledger.carried(action)) }
      end
    end

    def row(record, carried)
      {
        text: record.text, topic_id: record.topic_id, owners: record.owners.map { |one| one.person.name },
        carried: carried, due: record.due_on && Core::Words.day(record.due_on)
      }
    end
  end
end
