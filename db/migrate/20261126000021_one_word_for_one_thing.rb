# Answers, offered times and topics brought in are called on the inside what they are called on screen.
class OneWordForOneThing < ActiveRecord::Migration[7.2]
  def up
    renamed :replies, :answers, answer: "`answer` in ('accepted','tentative','declined','none')"
    renamed :counters, :offered_times, span: "`starts_at` < `ends_at`", state: "`state` in ('open','taken','declined')"
    execute "update made_keys set kind = 'offered_times' where kind = 'counters'"
    remove_check_constraint :topics, name: "topics_state"
    execute "update topics set state = 'brought_in' where state = 'offered'"
    add_check_constraint :topics, "`state` in ('on','brought_in','declined')", name: "topics_state"
  end

  def down = raise(ActiveRecord::IrreversibleMigration)

  private

  # Check constraints keep the name of the table they were made for.
  def renamed(from, to, **checks)
    rename_table from, to
    checks.each do |suffix, said|
      remove_check_constraint to, name: "#{from}_#{suffix}"
      add_check_constraint to, said, name: "#{to}_#{suffix}"
    end
  end
end
