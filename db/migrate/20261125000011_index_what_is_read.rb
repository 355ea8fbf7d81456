# Indexes for what the worker reads each minute; those that are the beginning of another, and columns nobody reads any
# more, go. States and answers are what they may be.
class IndexWhatIsRead < ActiveRecord::Migration[7.2]
  READ = {
    series: %i[laid_out_until], holds: %i[expires_at], calendars: %i[kind expanded_until],
    mails: %i[series_id created_at]
  }.freeze
  # table => the column whose own index is the beginning of a longer one
  BEGINNINGS = {
    action_items: :series_id, action_owners: :action_item_id, action_reviews: :action_item_id,
    attendances: :meeting_id, counters: :meeting_id, lines: :meeting_id, mails: :sending_id, meetings: :series_id,
    minutes_versions: :meeting_id, outside_meetings: :person_id, replies: :meeting_id, series_members: :series_id,
    substitutes: :meeting_id, topic_visits: :topic_id
  }.freeze
  ONE_OF = {
    replies_answer: [:replies, "answer in ('accepted', 'tentative', 'declined', 'none')"],
    series_members_run_answer: [:series_members, "run_answer in ('accepted', 'tentative', 'declined', 'none')"],
    action_items_state: [:action_items, "state in ('open', 'done', 'dropped', 'handed_over')"],
    attendances_state: [:attendances, "state in ('present', 'on_call', 'late', 'left', 'apologies', 'absent')"],
    mails_state: [:mails, "state in ('waiting', 'sent', 'delivered', 'failed', 'set_aside')"],
    mails_way: [:mails, "way in ('mail', 'text')"]
  }.freeze

  def change
    READ.each { |table, columns| add_index table, columns }
    BEGINNINGS.each { |table, column| remove_index table, column, name: "index_#{table}_on_#{column}" }
    ONE_OF.each { |name, (table, condition)| add_check_constraint table, condition, name: name.to_s }
    remove_column :series, :told_sequence, :integer
    remove_column :meetings, :time_sequence, :integer, null: false, default: 0
  end
end
