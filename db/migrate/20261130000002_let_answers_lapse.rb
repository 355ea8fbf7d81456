# Answers to a time that has changed no longer count; that they did is kept, so that whoever gave them can be told.
class LetAnswersLapse < ActiveRecord::Migration[7.2]
  def up
    add_column :answers, :lapsed_at, :datetime, precision: 6
  end

  def down
    remove_column :answers, :lapsed_at
  end
end
