module Views
  # What surrounds the agenda of a sheet: topics brought in, what of the standing agenda is different, and what
  # was sent.
  class Agendas
    # @param topics [Array<Records::Topic>] that stand on it
    # @param ledger [Core::CarryForward::Ledger] of its series
    # @param known [Array<Records::Person>] read already
    def initialize(meeting, topics, ledger, zone:, known: [])
      @meeting, @topics, @ledger, @zone, @known = meeting, topics, ledger, zone, known
    end

    # @return [Hash] brought_in, standing_changes and agenda_sent
    def around = {brought_in: brought_in, standing_changes: standing_changes, agenda_sent: sent}

    private

    def open? = Core::Sheet::Lifecycle::OPEN.include?(@meeting.state.to_sym)

    # Those that would stand here.
    def brought_in
      return [] unless open?

      waiting = Records::Topic.where(series_id: @meeting.series_id, state: "brought_in").order(:created_at, :id)
      here = waiting.select { |topic| @ledger.stands_at(topic.to_core) == @meeting.id }
      Records::Base.fill(here, :brought_by, known: @known).map do |topic|
        {
          id: topic.id, title: topic.title, purpose: topic.purpose, length_min: topic.length_min, text: topic.text,
          brought_by: {id: topic.brought_by_id, name: topic.brought_by.name}, closed: topic.closed,
          version: topic.lock_version
        }
      end
    end

    # @return [Hash, nil] titles that are added, changed or removed; nil where the sheet follows
    def standing_changes
      series = @meeting.series
      return unless open? && @meeting.agenda_touched && @meeting.agenda_number != series.agenda_number

      standing = Records::StandingTopic.where(series_id: series.id).in_order.index_by(&:id)
      here = @topics.select(&:standing_id).index_by(&:standing_id)
      {
        added: standing.except(*here.keys).values.map(&:title),
        removed: here.except(*standing.keys).values.map(&:title),
        changed: standing.slice(*here.keys).values.reject { |one| one.content == content(here[one.id]) }.map(&:title)
      }
    end

    def content(topic) = Records::StandingTopic::CONTENT.to_h { |name| [name, topic[name]] }

    def sent
      last = Records::AgendaSending.where(meeting_id: @meeting.id).order(:sent_at).last or return
      {local_at: @zone.wall(last.sent_at), recipients: last.recipients, changed: kept_of(@topics) != last.content}
    end

    def kept_of(topics)
      here = topics.select { |topic| @ledger.stands_at(topic.to_core) == @meeting.id }
      Loading::Agenda.kept(here)
    end
  end
end
