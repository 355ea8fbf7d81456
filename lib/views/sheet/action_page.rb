module Views
  # One action as its owner sees it by their private link.
  class ActionPage < Base
    # @param link [Loading::ActionLink]
    def show(link)
      action = Records::ActionItem.includes(:series, owners: :person).find(link.action_id)
      notes = Records::ActionChange.notes.where(action_item_id: action.id).includes(:person).order(:changed_at).last(20)
      zone = action.series.zone
      {
        text: action.text, state: action.state, reason: action.reason, due_on: action.due_on,
        series_title: action.series.title, raised_on: zone.wall(action.raised_at).date,
        name: Records::Person.where(id: link.person_id).pick(:name),
        owners: action.owners.map { |owner| owner.person.name }.sort, next_on: next_on(action),
        notes: notes.map do |note|
          {
            text: note.word, by: note.person.name, on: zone.wall(note.changed_at).date,
            delayed: note.change_kind == "delayed"
          }
        end
      }
    end

    private

    def next_on(action)
      coming = Records::Meeting.where(series_id: action.series_id, state: "planned").where("starts_at > ?", now)
      coming.minimum(:starts_at)&.then { |at| action.series.zone.wall(at).date }
    end
  end
end
